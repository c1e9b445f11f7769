import { proposedOutcome, trialStage, trialVerdict, type TrialRun } from './trial'

const DAY = 86_400_000
const run = (more: Partial<TrialRun> = {}): TrialRun => ({
  startedMs: 0,
  weeks: 2,
  rides: 3,
  ratingBefore: 6,
  ratings: [],
  ...more,
})

test('a trial is left for a week and two rides; its time over, it is due whatever was ridden', () => {
  expect(trialStage(run(), 6.9 * DAY)).toBe('early')
  expect(trialStage(run({ rides: 1 }), 8 * DAY)).toBe('early')
  expect(trialStage(run({ rides: 2 }), 7 * DAY)).toBe('due')
  expect(trialStage(run({ rides: 0 }), 14 * DAY)).toBe('over')
  expect(trialStage(run({ rides: 0, weeks: 1 }), 7 * DAY)).toBe('over')
})

test('two points are a change, one is not; nothing left is better wherever it began', () => {
  const verdict = (ratingBefore: number, ...ratings: number[]) => trialVerdict({ ratingBefore, ratings })
  expect(verdict(6)).toBe('unknown')
  expect(verdict(6, 5)).toBe('same')
  expect(verdict(6, 4)).toBe('better')
  expect(verdict(6, 8)).toBe('worse')
  expect(verdict(1, 0)).toBe('better')
  expect(verdict(0, 0)).toBe('same')
  // The latest counts: a bad first ride may be the new place only.
  expect(verdict(6, 8, 3)).toBe('better')
})

test('worse is undone at once; better is kept and the same goes on only once the time was given', () => {
  expect(proposedOutcome(run({ ratings: [9] }), DAY)).toBe('undo')
  expect(proposedOutcome(run({ ratings: [2] }), DAY)).toBeNull()
  expect(proposedOutcome(run({ ratings: [2] }), 8 * DAY)).toBe('keep')
  expect(proposedOutcome(run({ ratings: [6] }), 8 * DAY)).toBe('next')
  expect(proposedOutcome(run(), 20 * DAY)).toBeNull()
  // Nothing is decided about what was hardly ridden.
  expect(proposedOutcome(run({ rides: 1, ratings: [2] }), 20 * DAY)).toBeNull()
})
