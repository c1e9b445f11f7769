import { CAUSE_TABLE, COMPLAINTS } from '../model/causeTable'
import { SIGNS } from '../../classes/watch/signs'
import { EXERCISES } from '../exercises'
import {
  exercisesFor,
  isKnownProgramme,
  otherExercises,
  programmeState,
  progressOf,
  tickIssue,
  type Programme,
} from './programme'

const programme: Programme = {
  about: { sign: 'pullingAway' },
  exercises: ['hingeAndPlank', 'ninetyTurns'],
  weeks: 4,
  since: '2026-03-02',
}
const facts = { today: '2026-03-02', isEnded: false, isFlagged: false }
const ids = (about: Programme['about']) => exercisesFor(about).map(({ id }) => id)

// The pairs of the trade: hinge and plank for pulling off the bars or falling onto them, side-lying hip work for knees
// falling in, thoracic turning for a stiff upper back, calf and toe work for dropped heels (common practice, no
// source).
test.each([
  ['pullingAway', 'hingeAndPlank'],
  ['kneesIn', 'sideLegLifts'],
  ['twisted', 'upperBackTurns'],
  ['heelDropped', 'calfRaises'],
  ['grinding', 'ninetyTurns'],
])('for %s the trade names %s, and it is offered first', (sign, exercise) => {
  expect(ids({ sign })[0]).toBe(exercise)
})

test('complaints are offered what their causes name; a chest is offered nothing', () => {
  expect(ids({ complaint: 'lowBack' })).toContain('hingeAndPlank')
  expect(ids({ complaint: 'frontKnee' })).toContain('ninetyTurns')
  expect(ids({ complaint: 'chest' })).toEqual([])
  expect(isKnownProgramme({ ...programme, about: { complaint: 'chest' } })).toBe(false)
})

test('nothing is offered twice, and what is not offered can still be chosen', () => {
  const subjects = [...SIGNS.map(({ sign }) => ({ sign })), ...COMPLAINTS.map((complaint) => ({ complaint }))]
  for (const about of subjects) {
    const offered = exercisesFor(about)
    expect(new Set(offered).size).toBe(offered.length)
    expect(offered.length + otherExercises(offered).length).toBe(EXERCISES.length)
  }
  expect(CAUSE_TABLE.complaints).toHaveLength(COMPLAINTS.length)
  expect(exercisesFor({ sign: 'neverHeardOf' })).toEqual([])
})

test('a programme of exercises or signs that nobody knows is told', () => {
  expect(isKnownProgramme(programme)).toBe(true)
  expect(isKnownProgramme({ ...programme, exercises: ['handstand'] })).toBe(false)
  expect(isKnownProgramme({ ...programme, about: { sign: 'neverHeardOf' } })).toBe(false)
})

test('it runs for its weeks, the last day included; a red flag outranks the weeks, an end all', () => {
  const on = (today: string, other = {}) => programmeState(programme, { ...facts, today, ...other })
  expect(on('2026-03-02')).toEqual({ state: 'running', week: 1 })
  expect(on('2026-03-09')).toEqual({ state: 'running', week: 2 })
  expect(on('2026-03-29')).toEqual({ state: 'running', week: 4 })
  expect(on('2026-03-30')).toEqual({ state: 'over' })
  expect(on('2026-03-09', { isFlagged: true })).toEqual({ state: 'stopped' })
  expect(on('2026-04-09', { isFlagged: true })).toEqual({ state: 'stopped' })
  expect(on('2026-03-09', { isFlagged: true, isEnded: true })).toEqual({ state: 'ended' })
  // A clock behind the studio's.
  expect(on('2026-03-01')).toEqual({ state: 'running', week: 1 })
})

test('a day can be ticked for a week, none ahead and none before the programme', () => {
  const issue = (item: number, day: string, today = '2026-03-12') => tickIssue(programme, { item, day }, today)
  expect([issue(0, '2026-03-12'), issue(1, '2026-03-06')]).toEqual([null, null])
  expect([issue(0, '2026-03-05'), issue(0, '2026-03-13'), issue(0, '2026-03-99')]).toEqual(['day', 'day', 'day'])
  expect(issue(0, '2026-03-01', '2026-03-02')).toBe('day')
  expect([issue(2, '2026-03-12'), issue(-1, '2026-03-12'), issue(0.5, '2026-03-12')]).toEqual(['item', 'item', 'item'])
})

test('days count once, by week; the goes of a skill follow each other and end', () => {
  const tick = (item: number, day: string) => ({ item, day })
  const ticks = [tick(0, '2026-03-03'), tick(0, '2026-03-03'), tick(0, '2026-03-10'), tick(1, '2026-03-04')]
  const [hinge, turns] = progressOf(programme, ticks)
  expect(hinge).toMatchObject({ days: ['2026-03-03', '2026-03-10'], weeks: [1, 1, 0, 0], nextGoMin: null })
  // Two or three sessions of five to ten minutes (common practice, no source).
  expect([progressOf(programme, [])[1].nextGoMin, turns.nextGoMin]).toEqual([5, 7])
  const all = ['2026-03-04', '2026-03-06', '2026-03-08'].map((day) => tick(1, day))
  expect(progressOf(programme, all)[1].nextGoMin).toBeNull()
})
