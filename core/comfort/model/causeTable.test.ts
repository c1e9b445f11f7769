import Ajv from 'ajv'
import { SIGNS } from '../../classes/watch/signs'
import rows from './causeTable.json'
import { CAUSE_TABLE, CAUSES, causeRow, causeTableSchema, COMPLAINTS, complaintRow, type Cause } from './causeTable'

test('the table is as in its schema', () => {
  const validate = new Ajv({ allErrors: true }).compile(causeTableSchema)
  expect(validate(rows) ? [] : validate.errors).toEqual([])
})

test('a row without its source, with an unknown cause or a strength of its own is refused by the schema', () => {
  const validate = new Ajv().compile(causeTableSchema)
  const [first, ...rest] = rows.findings
  const without: Partial<typeof first> = { ...first }
  delete without.source
  for (const bad of [without, { ...first, for: ['badLuck'] }, { ...first, strength: 'huge' }])
    expect(validate({ ...rows, findings: [bad, ...rest] })).toBe(false)
})

test('every complaint and every cause of the wire format has one row, every rule its own name', () => {
  expect(CAUSE_TABLE.complaints.map(({ complaint }) => complaint).toSorted()).toEqual([...COMPLAINTS].toSorted())
  expect(CAUSE_TABLE.causes.map(({ cause }) => cause).toSorted()).toEqual([...CAUSES].toSorted())
  const rules = CAUSE_TABLE.findings.map(({ rule }) => rule)
  expect(new Set(rules).size).toBe(rules.length)
})

test('every cause is behind some complaint, and none twice behind one', () => {
  const named = new Set<Cause>()
  for (const { causes } of CAUSE_TABLE.complaints) {
    const own = causes.map(({ cause }) => cause)
    expect(new Set(own).size).toBe(own.length)
    own.forEach((cause) => named.add(cause))
  }
  expect(CAUSES.filter((cause) => !named.has(cause))).toEqual([])
})

test('no rule speaks for and against the same cause', () => {
  for (const rule of CAUSE_TABLE.findings) expect(rule.for.filter((cause) => rule.against.includes(cause))).toEqual([])
})

test('what is never a matter of the bike has no causes; all else has', () => {
  const never = ['chest', 'breath', 'faint', 'calfSwelling', 'abdomen']
  for (const complaint of COMPLAINTS)
    expect(complaintRow(complaint).causes.length === 0).toBe(never.includes(complaint))
})

test('opposite causes are put right in opposite ways', () => {
  for (const [a, b] of [
    ['saddleTooLow', 'saddleTooHigh'],
    ['saddleTooFarForward', 'saddleTooFarBack'],
    ['noseDown', 'noseUp'],
    ['barsTooFar', 'barsTooNear'],
  ] as const) {
    expect(causeRow(a).change!.axis).toBe(causeRow(b).change!.axis)
    expect(causeRow(a).change!.direction).not.toBe(causeRow(b).change!.direction)
  }
})

test('nearly every sign of the scan is evidence for something; those that are not are listed', () => {
  const told = new Set(CAUSE_TABLE.findings.flatMap(({ when }) => (when.kind === 'seen' ? [when.sign] : [])))
  expect(SIGNS.map(({ sign }) => sign).filter((sign) => !told.has(sign))).toEqual([
    'bouncing',
    'feetStopped',
    'aheadOfBeat',
  ])
})

test('a change is strong, and what it points to hangs on no finding that it makes old', () => {
  const aged = ['kneeAngle', 'plumb', 'tilt', 'barsAgainstSaddle', 'elbows', 'rocking']
  const onAged = new Set(
    CAUSE_TABLE.findings.filter(({ when }) => aged.includes(when.kind)).flatMap((rule) => rule.for),
  )
  const changes = CAUSE_TABLE.findings.filter(({ when }) => when.kind === 'changed')
  expect(changes.length).toBe(5)
  for (const rule of changes) {
    expect(rule.strength).toBe('strong')
    expect(rule.for.filter((cause) => onAged.has(cause))).toEqual([])
  }
})
