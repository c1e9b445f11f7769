import fc from 'fast-check'
import { schoolOf } from '../../base/school/school'
import { SIGNS } from '../../classes/watch/signs'
import { CAUSES, COMPLAINTS, type Cause } from '../model/causeTable'
import { explainComplaints } from './explain'
import { MOMENTS, QUALITIES, type Complaint, type Finding } from '../model/request'
import { prepareFindings } from '../findings/findingIndex'
import { weighCauses } from './weigh'

const side = fc.constantFrom('left', 'right', 'both')
const aged = { daysAgo: fc.option(fc.integer({ min: 0, max: 60 }), { nil: undefined }) }
const found = { ...aged, otherType: fc.option(fc.boolean(), { nil: undefined }) }
const finding = fc.oneof(
  fc.record({ kind: fc.constant('kneeAngle'), deg: fc.integer({ min: 5, max: 60 }), ...found }),
  fc.record({ kind: fc.constant('plumb'), mm: fc.integer({ min: -60, max: 60 }), ...found }),
  fc.record({ kind: fc.constant('tilt'), deg: fc.integer({ min: -12, max: 8 }), ...found }),
  fc.record({ kind: fc.constant('barsAgainstSaddle'), mm: fc.integer({ min: -90, max: 90 }), ...found }),
  fc.record({ kind: fc.constant('elbows'), seen: fc.constantFrom('locked', 'soft', 'cramped'), ...found }),
  fc.record({ kind: fc.constant('rocking'), seen: fc.constantFrom('level', 'both', 'left', 'right'), ...found }),
  fc.record({ kind: fc.constant('viewAngle'), deg: fc.integer({ min: -90, max: 90 }), ...found }),
  fc.record({
    kind: fc.constant('cadence'),
    rpm: fc.integer({ min: 50, max: 120 }),
    load: fc.constantFrom('light', 'heavy'),
    ...found,
  }),
  fc.record({
    kind: fc.constant('changed'),
    what: fc.constantFrom('shoes', 'bike', 'saddle', 'numbers', 'cleats'),
    daysAgo: fc.integer({ min: 0, max: 60 }),
  }),
  fc
    .record({
      sign: fc.constantFrom(...SIGNS),
      side,
      held: fc.option(fc.boolean(), { nil: undefined }),
      ...found,
    })
    .map(({ sign, ...rest }) => ({ kind: 'seen', region: sign.region, what: sign.sign, ...rest })),
) as unknown as fc.Arbitrary<Finding>
const complaint = fc.record({
  what: fc.constantFrom(...COMPLAINTS),
  side: fc.option(side, { nil: undefined }),
  strength: fc.integer({ min: 0, max: 10 }),
  when: fc.option(fc.constantFrom(...MOMENTS), { nil: undefined }),
  lasts: fc.option(fc.boolean(), { nil: undefined }),
  quality: fc.option(fc.uniqueArray(fc.constantFrom(...QUALITIES), { maxLength: 2 }), { nil: undefined }),
}) as fc.Arbitrary<Complaint>
const complaints = fc.array(complaint, { minLength: 1, maxLength: 4 })
const findings = fc.array(finding, { maxLength: 8 })
const experience = fc.option(fc.constantFrom('new', 'regular', 'experienced'), { nil: undefined })
const RUNS = { numRuns: 2000, seed: 20 }

test('a finding of a kind not read before that supports a cause never lowers its weight, whatever else it does', () => {
  fc.assert(
    fc.property(complaints, findings, finding, experience, (felt, known, more, is) => {
      const school = schoolOf()
      const asked = { complaints: felt, experience: is as 'new' | undefined, school, tried: [] }
      // Of readings the newest replaces what was read before: that may lower a weight.
      fc.pre(more.kind === 'seen' || more.kind === 'changed' || known.every(({ kind }) => kind !== more.kind))
      const before = new Map(
        weighCauses({ ...asked, findingIndex: prepareFindings(known) }).map(({ cause, weight }) => [cause, weight]),
      )
      const alone = weighCauses({ ...asked, findingIndex: prepareFindings([more]) })
      const supports = (cause: Cause) =>
        alone.some((one) => one.cause === cause && one.for.some(({ finding: by }) => by === more))
      for (const { cause, weight } of weighCauses({ ...asked, findingIndex: prepareFindings([...known, more]) }))
        if (supports(cause)) expect(weight).toBeGreaterThanOrEqual(before.get(cause)! - 1e-9)
    }),
    RUNS,
  )
})

test('what is reported in another order is answered alike, to the last digit', () => {
  fc.assert(
    fc.property(
      complaints.chain((felt) => fc.tuple(fc.constant(felt), fc.shuffledSubarray(felt, { minLength: felt.length }))),
      findings.chain((known) => fc.tuple(fc.constant(known), fc.shuffledSubarray(known, { minLength: known.length }))),
      ([felt, feltAgain], [known, knownAgain]) => {
        expect(explainComplaints({ complaints: feltAgain, findings: knownAgain })).toEqual(
          explainComplaints({ complaints: felt, findings: known }),
        )
      },
    ),
    { ...RUNS, numRuns: 500 },
  )
})

test('weights add to one, or there are no causes at all; nothing is changed beside a referral', () => {
  fc.assert(
    fc.property(complaints, findings, fc.boolean(), (felt, known, operated) => {
      const told = explainComplaints({
        complaints: felt,
        findings: known,
        ...(operated && { health: ['recentOperation'] }),
      })
      const total = told.causes.reduce((sum, { weight }) => sum + weight, 0)
      expect(told.causes.length === 0 ? 1 : total).toBeCloseTo(1, 9)
      for (const { cause } of told.causes) expect(CAUSES).toContain(cause)
      if (operated) expect(told.referred).toHaveLength(felt.length)
      if (told.referred.length > 0)
        expect([told.proposal, told.cue, told.offBike, told.deciding]).toEqual([null, null, null, []])
    }),
    { ...RUNS, numRuns: 1000 },
  )
})
