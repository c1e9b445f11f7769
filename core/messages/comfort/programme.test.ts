import { exerciseById } from '../../comfort/exercises'
import { cueResponse } from '../../comfort/programme/cueResponse'
import { progressOf } from '../../comfort/programme/programme'
import { formatCueResponse, formatDone, formatProgrammeState, formatRhythm, formatSubject } from './programme'

const start = new Date('2026-06-01T00:00:00Z')
const looks = (held: number, of: number, fromDay: number) =>
  Array.from({ length: of }, (_, k) => ({
    classId: `${fromDay} ${k}`,
    at: new Date(start.getTime() + (fromDay + k) * 86_400_000),
    held: k < held,
  }))
const say = (...seen: ReturnType<typeof looks>[]) => formatCueResponse(cueResponse(seen.flat(), start))

test('whether a cue holds more often is said with its uncertainty, and left open where it is', () => {
  expect(say(looks(3, 10, -20), looks(9, 10, 1))).toBe(
    'The cue held in 3 of 10 classes before and in 9 of 10 classes since. It holds more often: of 100 classes ' +
      'between 17 more and 81 more (95 %).',
  )
  expect(say(looks(2, 5, -9), looks(3, 5, 1))).toMatch(/is not known yet: of 100 classes between 32 fewer and \d+ more/)
  expect(say(looks(1, 1, -3))).toBe(
    'Before, the cue held in 1 of 1 class; there is no second look since to compare with.',
  )
  expect(say()).toMatch(/^Whether the cue holds more often shows once/)
})

test('rhythm and what was done, for a week’s exercise, a drill of the ride and the goes of a skill', () => {
  const exercises = ['hingeAndPlank', 'toesUp', 'ninetyTurns'] as const
  const programme = { about: { sign: 'pullingAway' }, exercises, weeks: 4, since: '2026-03-02' } as const
  const ticks = [0, 1, 2].map((item) => ({ item, day: '2026-03-03' }))
  const progress = progressOf(programme, ticks)
  expect(progress.map((one) => formatRhythm(one.exercise, one.nextGoMin))).toEqual([
    '3 days a week',
    'in each ride',
    'the next go: 7 minutes',
  ])
  expect(progress.map((one) => formatDone(one, 2))).toEqual([
    'week 1: 1 of 3, week 2: 0 of 3',
    'on 1 day',
    '1 of 3 goes',
  ])
  expect(formatRhythm(exerciseById('ninetyTurns')!, null)).toBe('all goes ridden')
  expect(formatRhythm(exerciseById('hipStretch')!, null)).toBe('every day')
})

test('what it is for and how far it is', () => {
  expect([formatSubject({ sign: 'kneesIn' }), formatSubject({ complaint: 'lowBack' })]).toEqual([
    'knees in',
    'low back',
  ])
  expect(formatProgrammeState({ state: 'running', week: 2 }, 4)).toBe('week 2 of 4')
  expect(formatProgrammeState({ state: 'stopped' }, 4)).toBe('stopped by a red flag')
})
