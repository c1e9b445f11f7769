import { Type } from '@sinclair/typebox'
import Ajv from 'ajv'
import { closed, oneOf } from '../base/schema'
import { SIGNS } from '../classes/watch/signs'
import { CAUSE_TABLE } from './model/causeTable'
import { exerciseNamed, EXERCISES } from './exercises'

const point = Type.Array(Type.Number(), { minItems: 2, maxItems: 2 })
const lines = Type.Array(Type.Array(point, { minItems: 2 }), { minItems: 1 })
const pose = closed({ head: Type.Optional(point), limbs: lines, props: Type.Optional(lines) })
const text = Type.String({ minLength: 5, maxLength: 160 })
const schema = Type.Array(
  closed({
    id: Type.String({ pattern: '^[a-zA-Z]{3,30}$' }),
    name: text,
    howOften: text,
    how: text,
    named: text,
    kind: oneOf(['strength', 'drill', 'skill']),
    perWeek: Type.Optional(Type.Integer({ minimum: 1, maximum: 7 })),
    goesMin: Type.Optional(Type.Array(Type.Integer({ minimum: 1, maximum: 20 }), { minItems: 1 })),
    drawn: Type.Array(closed({ from: Type.Optional(pose), to: pose }), { minItems: 1 }),
  }),
)

test('the exercises follow their schema', () => {
  const validate = new Ajv({ allErrors: true }).compile(schema)
  expect(validate(EXERCISES) ? [] : validate.errors).toEqual([])
  expect(validate([{ ...EXERCISES[0], drawn: [] }])).toBe(false)
})

test('everything the tables name to do off the bike is drawn, and everything drawn is named there', () => {
  const named = [...CAUSE_TABLE.causes.map(({ offBike }) => offBike), ...SIGNS.map(({ strength }) => strength)].filter(
    (words) => words !== null,
  )
  expect(named.length).toBeGreaterThan(5)
  expect(named.filter((words) => exerciseNamed(words) === undefined)).toEqual([])
  expect(EXERCISES.filter((one) => !named.includes(one.named))).toEqual([])
})

test('every pose lies within its field and stands on its ground', () => {
  for (const { name, drawn } of EXERCISES)
    for (const { from, to } of drawn)
      for (const pose of [to, ...(from ? [from] : [])]) {
        const points = [...pose.limbs.flat(), ...(pose.head ? [pose.head] : []), ...(pose.props?.flat() ?? [])]
        for (const [x, y] of points) {
          expect([name, x >= 8 && x <= 192]).toEqual([name, true])
          expect([name, y >= 8 && y <= 112]).toEqual([name, true])
        }
        if (pose === to) expect(Math.max(...points.map(([, y]) => y))).toBeGreaterThan(100)
      }
})
