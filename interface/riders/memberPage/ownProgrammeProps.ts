import type { Exercise } from '@/core/comfort/exercises'
import { MAX_TICK_AGE_DAYS } from '@/core/comfort/programme/programme'
import { formatProgrammeState, formatRhythm, formatSubject } from '@/core/messages/comfort/programme'
import { formatDay } from '@/core/messages/words/dates'
import type { OwnProgrammeData } from '@/server/pages/riders/memberPage'

/** A member's own exercises, with the days that can be ticked. */
export type OwnProgrammeSummary = Readonly<{
  id: string
  subject: string
  isStopped: boolean
  status: string
  /** `goes`: how far a skill is that is learned in a few goes. */
  items: readonly Readonly<{ exercise: Exercise; goes: string | null; done: readonly string[] }>[]
  /** The latest first: today, then those that may have been forgotten. */
  days: readonly Readonly<{ day: string; name: string }>[]
}>

const DAY_MS = 86_400_000

export function ownProgrammeProps({ id, programme, state, progress, today }: OwnProgrammeData): OwnProgrammeSummary {
  const { about, weeks, since } = programme
  const days = Array.from({ length: MAX_TICK_AGE_DAYS + 1 }, (_, ago) => new Date(Date.parse(today) - ago * DAY_MS))
  return {
    id,
    subject: formatSubject(about),
    isStopped: state.state === 'stopped',
    status: formatProgrammeState(state, weeks),
    items: progress.map(({ exercise, days: done, nextGoMin }) => ({
      exercise,
      goes: exercise.goesMin ? formatRhythm(exercise, nextGoMin) : null,
      done,
    })),
    days: days
      .map((at, ago) => ({ day: at.toISOString().slice(0, 10), name: ago === 0 ? 'today' : formatDay(at, 'UTC') }))
      .filter(({ day }) => day >= since),
  }
}
