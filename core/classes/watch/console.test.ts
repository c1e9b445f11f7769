import type { Block } from '../plan/blocks'
import { consoleProposal, parseConsoleReading, type ConsoleReading } from './console'

const BLOCK: Block = {
  id: 'b',
  name: '',
  minutes: 5,
  rpm: 90,
  posture: 'seated',
  hands: 1,
  effort: 'steady',
  spine: 'long',
}
const stream = (rpms: readonly number[], resistancePct = 40, bike = 7): ConsoleReading[] =>
  rpms.map((rpm, i) => ({ bike, atMs: 1000 * i, rpm, resistancePct }))
const asked = (readings: readonly ConsoleReading[], block: Block | null = BLOCK) =>
  consoleProposal(readings, 7, 1000 * (readings.length - 1), block)?.sign ?? null
const steady = (rpm: number) => Array.from({ length: 10 }, () => rpm)

test('off the plan throughout is proposed, on it or only for a moment is not', () => {
  expect(asked(stream(steady(90)))).toBeNull()
  expect(asked(stream(steady(78)))).toBe('behindBeat')
  expect(asked(stream(steady(101)))).toBe('aheadOfBeat')
  expect(asked(stream([...steady(90), 70]))).toBeNull()
  expect(asked(stream(steady(70)), null)).toBeNull()
  // A slow climb by plan is on plan.
  expect(asked(stream(steady(64)), { ...BLOCK, rpm: 64 })).toBeNull()
})

test('fast with little load is bouncing; feet that stop at speed come first; standing still is nothing', () => {
  expect(asked(stream(steady(112), 8))).toBe('bouncing')
  expect(asked(stream([...steady(100), 0, 0, 0]))).toBe('feetStopped')
  expect(asked(stream([60, 40, 20, 5, 0, 0, 0]))).toBeNull()
  expect(asked(stream(steady(0)))).toBeNull()
})

test('too few readings, old ones and those of another bike are no evidence', () => {
  expect(asked(stream([70, 70, 70]))).toBeNull()
  expect(consoleProposal(stream(steady(70), 40, 8), 7, 9000, BLOCK)).toBeNull()
  expect(consoleProposal(stream(steady(70)), 7, 90_000, BLOCK)).toBeNull()
})

test('a line no console sends is none', () => {
  expect(parseConsoleReading('{"bike":3,"atMs":5,"rpm":88.5,"resistancePct":30}')).toEqual({
    bike: 3,
    atMs: 5,
    rpm: 88.5,
    resistancePct: 30,
  })
  for (const bad of ['', 'null', '[]', '{"bike":3}', '{"bike":0,"atMs":5,"rpm":88,"resistancePct":30}'])
    expect(parseConsoleReading(bad)).toBeNull()
  expect(parseConsoleReading('{"bike":3,"atMs":5,"rpm":900,"resistancePct":30}')).toBeNull()
  expect(parseConsoleReading('{"bike":3,"atMs":5,"rpm":"88","resistancePct":30}')).toBeNull()
})
