import { dispatch } from '../../operations/dispatch'
import type { ExplainResponse } from '../../operations/requests/explain'
import { SIX_BIKE } from '../../testing/furtherTypes'
import { formatChange } from '../../messages/comfort/complaints'
import { schoolOf } from '../../base/school/school'
import { changeFor } from './change'
import type { ChangeInputs } from './changeTypes'

const marks = { seatHeight: '8', seatSlide: 'D', barHeight: '6', barSlide: '0', frameHeight: 'A', crankLength: '170' }
const inputs = (deg: number, change: object = {}): ChangeInputs => ({
  bikeType: SIX_BIKE,
  marks: { ...marks, ...change },
  findings: [{ kind: 'kneeAngle', deg }] as ChangeInputs['findings'],
  school: schoolOf({}),
  leadingWeight: () => 1,
})

test('cranks long for these legs: the next shorter ones, the knee at the bottom a little more bent', () => {
  const found = changeFor('cranksTooLong', inputs(28))
  if (!('change' in found)) throw new Error(found.code)
  expect(found.change).toMatchObject({ axis: 'crankLength', from: '170', to: '165', mm: -5, large: false })
  const [{ by, to }] = found.expect
  expect(by).toBeGreaterThan(1)
  expect(by).toBeLessThan(4)
  expect(to).toBeCloseTo(28 + by, 6)
  expect(formatChange(found.change, SIX_BIKE)).toBe('Take cranks of 165 in place of 170 (5 mm shorter)')
})

test('a knee that would leave its window by it, the shortest already, or an unread knee: no change, with why', () => {
  expect(changeFor('cranksTooLong', inputs(34.5))).toMatchObject({ code: 'wouldWorsen', check: 'kneeFlexion' })
  expect(changeFor('cranksTooLong', inputs(28, { crankLength: '155' }))).toMatchObject({ code: 'atEnd' })
  expect(changeFor('cranksTooLong', { ...inputs(28), findings: [] })).toMatchObject({ code: 'measureFirst' })
})

test('on a type without a choice the answer stays another type', () => {
  const { crankLength: _, ...axes } = SIX_BIKE.axes
  expect(changeFor('cranksTooLong', { ...inputs(28), bikeType: { ...SIX_BIKE, axes } })).toEqual({
    code: 'notOfAnAxis',
  })
  const request = { complaint: { what: 'hipPinch' }, bikeType: { ...SIX_BIKE, axes }, marks, findings: [] }
  expect((dispatch('explain', request) as ExplainResponse).change).toBeUndefined()
})
