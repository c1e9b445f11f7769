import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { isErrorResponse, type ErrorResponse } from '../errorResponse'
import { dispatch } from '../dispatch'
import type { PlanRequest, PlanResponse } from './plan'

const example = JSON.parse(readFileSync(join(process.cwd(), 'docs/examples/plan.json'), 'utf8')) as PlanRequest
const answerTo = (request: unknown): PlanResponse => {
  const answer = dispatch('plan', request)
  if (isErrorResponse(answer)) throw new Error(JSON.stringify(answer))
  return answer as PlanResponse
}
const faultsOf = (request: unknown) =>
  (dispatch('plan', request) as ErrorResponse).error.faults.map(({ pointer, reason }) => `${pointer}: ${reason}`)

test('a class is planned: everybody sits once with reasons in words, and who needs a hand has a slot', () => {
  const { pairs, unplaced, totalCost, queue, late } = answerTo(example)
  expect(pairs.map(({ rider }) => rider).sort()).toEqual(example.riders.map(({ id }) => id).sort())
  expect(unplaced).toEqual([])
  expect(totalCost).toBeCloseTo(
    pairs.reduce((sum, { cost }) => sum + cost, 0),
    9,
  )
  for (const { because } of pairs) expect(because.length).toBeGreaterThan(0)
  expect(pairs.find(({ rider }) => rider === 'Oda')!.because).toContain('put here by hand')
  const inQueue = queue.map(({ rider }) => rider)
  expect(inQueue).toContain('Ivo')
  expect(inQueue).not.toContain('Ada')
  for (const { fromMin } of queue) expect(fromMin).toBeGreaterThanOrEqual(example.doorsMin)
  // Ivo comes three minutes before the start and needs six.
  expect(late).toEqual([
    { rider: 'Ivo', comeByMin: -6, why: 'Ready 3 minutes late. In time if they come 3 minutes earlier.' },
  ])
  expect(answerTo(example)).toEqual(answerTo(example))
})

test('with two pairs of hands and an earlier coming nobody is late', () => {
  const riders = example.riders.map((one) => (one.id === 'Ivo' ? { ...one, arrivesMin: -8 } : one))
  expect(answerTo({ ...example, hands: 2, riders }).late).toEqual([])
})

test('what is wrong with a room is reported by place, and nothing is planned', () => {
  const [bike, rider] = [example.bikes[0], example.riders[0]]
  expect(
    faultsOf({
      ...example,
      bikes: [...example.bikes, { ...bike, id: 'new', type: 'tandem' }, bike],
      riders: [...example.riders, rider, { ...rider, id: 'x', marksByType: { sorrel: { seatHeight: '99' } } }],
      startMin: example.doorsMin - 1,
    }),
  ).toEqual(
    expect.arrayContaining([
      expect.stringMatching(/^\/bikes\/\d+\/type: there is no type tandem here; there are sorrel/),
      expect.stringMatching(/^\/bikes\/\d+\/id: .* stands twice in this list/),
      expect.stringMatching(/^\/riders\/\d+\/id: .* stands twice in this list/),
      expect.stringMatching(/^\/riders\/\d+\/marksByType\/sorrel.*no mark 99/),
      '/startMin: lies before the doors open',
    ]),
  )
  expect(faultsOf({ ...example, hands: 0 })[0]).toMatch(/^\/hands/)
  expect(faultsOf({ ...example, riders: Array.from({ length: 121 }, () => rider) })[0]).toMatch(/too long/)
})

test('an empty class is an empty plan', () => {
  const nothing = { pairs: [], unplaced: [], totalCost: 0, queue: [], late: [], better: [] }
  expect(answerTo({ ...example, riders: [] })).toEqual(nothing)
})
