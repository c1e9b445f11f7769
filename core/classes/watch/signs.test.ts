import { Type } from '@sinclair/typebox'
import Ajv from 'ajv'
import { closed, oneOf } from '../../base/schema'
import { REGIONS, signNamed, formatSign, SIGNS } from './signs'

const textOrNull = (maxLength: number) => Type.Union([Type.String({ minLength: 3, maxLength }), Type.Null()])
const schema = Type.Array(
  closed({
    sign: Type.String({ pattern: '^[a-z][A-Za-z]+$' }),
    region: oneOf(REGIONS),
    name: Type.String({ minLength: 2, maxLength: 40 }),
    cue: Type.String({ minLength: 5, maxLength: 80 }),
    sided: Type.Boolean(),
    setUp: textOrNull(60),
    strength: textOrNull(120),
  }),
)

test('the table of signs follows its schema, and its regions go from the feet up', () => {
  const validate = new Ajv({ allErrors: true }).compile(schema)
  expect(validate(SIGNS) ? [] : validate.errors).toEqual([])
  expect(validate([{ ...SIGNS[0], region: 'elbow' }])).toBe(false)
  const order = SIGNS.map(({ region }) => REGIONS.indexOf(region))
  expect(order).toEqual(order.toSorted((a, b) => a - b))
})

test('every sign has one short cue of its own, in calm words', () => {
  expect(new Set(SIGNS.map((s) => s.sign)).size).toBe(SIGNS.length)
  expect(new Set(SIGNS.map((s) => s.cue)).size).toBe(SIGNS.length)
  for (const { cue } of SIGNS) {
    expect(cue.length).toBeLessThan(80)
    expect(cue).not.toMatch(/!/)
  }
})

test('the scan goes from the feet up, and every region can be noted', () => {
  expect(REGIONS[0]).toBe('feet')
  for (const region of REGIONS) expect(SIGNS.some((s) => s.region === region)).toBe(true)
})

test('a sign is stated with its region', () => {
  expect(formatSign(signNamed('kneesOut')!)).toBe('knees out')
})

test('an unknown sign is unknown', () => {
  expect(signNamed('kneesOut')?.region).toBe('knees')
  expect(signNamed('toString')).toBeUndefined()
})
