import { wilson, type Count } from '@/core/classes/watch/proportions'
import {
  exercisesFor,
  otherExercises,
  type ProgrammeState,
  type ProgrammeSubject,
} from '@/core/comfort/programme/programme'
import type { Exercise } from '@/core/comfort/exercises'
import {
  formatCueResponse,
  formatDone,
  formatProgrammeState,
  formatRhythm,
  formatSubject,
} from '@/core/messages/comfort/programme'
import { formatDate } from '@/core/messages/words/dates'
import { capitalized } from '@/core/messages/words/phrases'
import type { ProgrammeRecord, RiderProgrammes } from '@/server/pages/comfort/programmes'

/** A share with its 95 % interval, each 0 to 1, and in words. */
export type ShareText = Readonly<{ name: string; text: string; share: number; low: number; high: number }>

/** A programme as the rider's page shows it. */
export type ProgrammeText = Readonly<{
  id: string
  subject: string
  /** The sign it is for; null for a complaint. */
  sign: string | null
  state: ProgrammeState['state']
  status: string
  given: string
  exercises: readonly Readonly<{ name: string; rhythm: string; done: string }>[]
  response: string | null
  shares: readonly ShareText[]
}>

/** Something exercises can be given for. */
export type SubjectText = Readonly<{
  about: ProgrammeSubject
  name: string
  offered: readonly Exercise[]
  others: readonly Exercise[]
}>

export type ProgrammesText = Readonly<{ given: readonly ProgrammeText[]; subjects: readonly SubjectText[] }>

/** A rider's programmes in words. */
export const programmesText = ({ given, subjects }: RiderProgrammes, timeZone: string): ProgrammesText => ({
  given: given.map((one) => programmeText(one, timeZone)),
  subjects: subjects.map(subjectText),
})

export function subjectText(about: ProgrammeSubject): SubjectText {
  const offered = exercisesFor(about)
  return { about, name: capitalized(formatSubject(about)), offered, others: otherExercises(offered) }
}

function programmeText(
  { id, programme, state, progress, response, createdAt, createdBy }: ProgrammeRecord,
  timeZone: string,
): ProgrammeText {
  const { about, weeks } = programme
  const week = state.state === 'running' ? state.week : weeks
  return {
    id,
    subject: capitalized(formatSubject(about)),
    sign: 'sign' in about ? about.sign : null,
    state: state.state,
    status: formatProgrammeState(state, weeks),
    given: `${formatDate(createdAt, timeZone)}, ${createdBy}`,
    exercises: progress.map((one) => ({
      name: one.exercise.name,
      rhythm: formatRhythm(one.exercise, one.nextGoMin),
      done: formatDone(one, week),
    })),
    response: response && formatCueResponse(response),
    shares: response ? [...share('before', response.before), ...share('since', response.since)] : [],
  }
}

const share = (name: string, count: Count): ShareText[] =>
  count.of === 0
    ? []
    : [{ name, text: `${count.changed} of ${count.of}`, share: count.changed / count.of, ...wilson(count) }]
