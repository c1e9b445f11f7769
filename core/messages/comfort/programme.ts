import type { CueResponse } from '../../comfort/programme/cueResponse'
import type { ExerciseProgress, ProgrammeState, ProgrammeSubject } from '../../comfort/programme/programme'
import type { Exercise } from '../../comfort/exercises'
import { formatSign, signNamed } from '../../classes/watch/signs'
import { lowered } from '../words/phrases'
import { FELT_NAME } from './comfort'

export const PROGRAMME_CAUTION =
  'A suggestion, not therapy. Leave out what hurts; pain that is sharp, grows or lasts belongs to a clinician.'

/** "knees in", "low back": what a programme is for. */
export function formatSubject(about: ProgrammeSubject): string {
  if ('complaint' in about) return lowered(FELT_NAME[about.complaint])
  const sign = signNamed(about.sign)
  return sign ? formatSign(sign) : about.sign
}

/** "week 2 of 4", "over after 4 weeks", "stopped by a red flag", "ended". */
export function formatProgrammeState(state: ProgrammeState, weeks: number): string {
  switch (state.state) {
    case 'running':
      return `week ${state.week} of ${weeks}`
    case 'over':
      return `over after ${weeks} weeks`
    case 'stopped':
      return 'stopped by a red flag'
    case 'ended':
      return 'ended'
  }
}

/** How often: "3 days a week", "every day", "three goes, the next of 7 minutes", "in each ride". */
export function formatRhythm({ perWeek, goesMin }: Exercise, nextGoMin: number | null): string {
  if (goesMin) return nextGoMin === null ? 'all goes ridden' : `the next go: ${nextGoMin} minutes`
  if (perWeek === undefined) return 'in each ride'
  return perWeek === 7 ? 'every day' : `${perWeek} days a week`
}

/** What was ticked: "week 1: 3 of 3, week 2: 1 of 3", "2 of 3 goes", "on 4 days". Weeks to come are left out. */
export function formatDone({ exercise, days, weeks }: ExerciseProgress, week: number): string {
  if (exercise.goesMin) return `${days.length} of ${exercise.goesMin.length} goes`
  const { perWeek } = exercise
  if (perWeek === undefined) return days.length === 1 ? 'on 1 day' : `on ${days.length} days`
  return weeks
    .slice(0, week)
    .map((done, k) => `week ${k + 1}: ${done} of ${perWeek}`)
    .join(', ')
}

const inClasses = ({ changed, of }: CueResponse['before']): string =>
  `${changed} of ${of} ${of === 1 ? 'class' : 'classes'}`
const points = (share: number): string => `${Math.abs(Math.round(100 * share))}`
const signed = (share: number): string =>
  Math.round(100 * share) === 0 ? '0' : `${points(share)} ${share < 0 ? 'fewer' : 'more'}`

/** Whether the cue holds more often since, with its uncertainty, in sentences. */
export function formatCueResponse({ before, since, change }: CueResponse): string {
  if (!change) {
    if (before.of === 0 && since.of === 0)
      return 'Whether the cue holds more often shows once a second look was noted before and since.'
    const known =
      before.of > 0 ? `Before, the cue held in ${inClasses(before)}` : `Since, the cue held in ${inClasses(since)}`
    return `${known}; there is no second look ${before.of > 0 ? 'since' : 'before'} to compare with.`
  }
  const { low, high, verdict } = change
  const told = {
    moreOften: 'It holds more often',
    lessOften: 'It holds less often',
    unclear: 'Whether it holds more often is not known yet',
  }[verdict]
  return (
    `The cue held in ${inClasses(before)} before and in ${inClasses(since)} since. ${told}: of 100 classes between ` +
    `${signed(low)} and ${signed(high)} (95 %).`
  )
}
