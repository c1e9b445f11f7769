import { Type } from '@sinclair/typebox'
import { closed, oneOf, type Plain } from '../../base/schema'
import { signNamed, type Sign } from '../../classes/watch/signs'
import { daysBetween } from '../../riders/limits/limits'
import { EXERCISES, exerciseById, exerciseNamed, type Exercise } from '../exercises'
import { causeRow, complaintRow, COMPLAINTS, SUSPICION_ODDS, type ComplaintName } from '../model/causeTable'
import { NEVER_OF_THE_BIKE } from '../model/redFlags'

export const MAX_EXERCISES = 4
/** How long a programme may be given for, weeks. */
export const PROGRAMME_WEEKS = [2, 4, 6, 8] as const
/** Common practice, no source. */
export const DEFAULT_WEEKS = 4
const DAYS_A_WEEK = 7
/** A day that was forgotten may still be ticked so many days later. */
export const MAX_TICK_AGE_DAYS = 6

/** What a programme is given for: a sign seen in class, or something the rider feels. */
export const aboutSchema = Type.Union([
  closed({ sign: Type.String({ minLength: 1, maxLength: 30 }) }),
  closed({ complaint: oneOf(COMPLAINTS) }),
])
export type ProgrammeSubject = Plain<typeof aboutSchema>

/** Exercises given to a rider for some weeks from a day on (YYYY-MM-DD on the studio's clock). */
export const programmeSchema = closed({
  about: aboutSchema,
  exercises: Type.Array(Type.String({ minLength: 1, maxLength: 30 }), {
    minItems: 1,
    maxItems: MAX_EXERCISES,
    uniqueItems: true,
  }),
  weeks: Type.Union(PROGRAMME_WEEKS.map((weeks) => Type.Literal(weeks))),
  since: Type.String({ pattern: '^\\d{4}-\\d{2}-\\d{2}$' }),
})
export type Programme = Plain<typeof programmeSchema>

/** Whether a programme names exercises that exist, for a sign that exists or a complaint that exercises may answer. */
export const isKnownProgramme = ({ about, exercises }: Programme): boolean =>
  ('complaint' in about ? !NEVER.includes(about.complaint) : signNamed(about.sign) !== undefined) &&
  exercises.every((id) => exerciseById(id) !== undefined)
const NEVER: readonly ComplaintName[] = NEVER_OF_THE_BIKE

/** Drills that let a rider feel the cue for a part of the body. Common practice, no source. */
const DRILLS: Readonly<Partial<Record<Sign['region'], readonly string[]>>> = {
  feet: ['toesUp'],
  hips: ['leanAndSit'],
  shoulders: ['leanAndSit'],
  hands: ['leanAndSit'],
  load: ['ninetyTurns'],
}

/** Exercises to offer for a sign or complaint, the one the tables name first; empty where they name none. */
export function exercisesFor(about: ProgrammeSubject): readonly Exercise[] {
  const ids = 'sign' in about ? idsForSign(signNamed(about.sign)) : idsForComplaint(about.complaint)
  return [...new Set(ids)].flatMap((id) => exerciseById(id) ?? [])
}

function idsForSign(sign: Sign | undefined): readonly string[] {
  if (!sign) return []
  const named = sign.strength ? exerciseNamed(sign.strength) : undefined
  return [...(named ? [named.id] : []), ...(DRILLS[sign.region] ?? [])]
}

/** Exercises of the causes that the table holds against a complaint, the likeliest first. */
const idsForComplaint = (complaint: ComplaintName): readonly string[] =>
  complaintRow(complaint)
    .causes.toSorted((a, b) => SUSPICION_ODDS[b.suspicion] - SUSPICION_ODDS[a.suspicion])
    .flatMap(({ cause }) => {
      const { offBike } = causeRow(cause)
      return (offBike && exerciseNamed(offBike)?.id) || []
    })

/** Exercises that can be chosen besides those offered. */
export const otherExercises = (offered: readonly Exercise[]): readonly Exercise[] =>
  EXERCISES.filter((one) => !offered.includes(one))

/** An exercise was done on a day (YYYY-MM-DD); `item` counts the programme's exercises from 0. */
export type Tick = Readonly<{ item: number; day: string }>

/** What decides whether a programme runs. */
export type ProgrammeFacts = Readonly<{
  /** YYYY-MM-DD on the studio's clock. */
  today: string
  isEnded: boolean
  /** A red flag is open, or came up since the programme was given or last taken up again. */
  isFlagged: boolean
}>

/** `stopped`: removed by a red flag; `over`: its weeks have passed. `week` counts from 1. */
export type ProgrammeState =
  Readonly<{ state: 'ended' | 'stopped' | 'over' }> | Readonly<{ state: 'running'; week: number }>

/** The state of a programme on a day. A red flag outranks all but the end. */
export function programmeState(
  { since, weeks }: Programme,
  { today, isEnded, isFlagged }: ProgrammeFacts,
): ProgrammeState {
  if (isEnded) return { state: 'ended' }
  if (isFlagged) return { state: 'stopped' }
  const week = weekOf(since, today)
  return week > weeks ? { state: 'over' } : { state: 'running', week: Math.max(1, week) }
}

const weekOf = (since: string, day: string): number => Math.floor(daysBetween(since, day) / DAYS_A_WEEK) + 1

/** What is wrong with a tick made on `today`; null where nothing is. */
export function tickIssue({ exercises, since }: Programme, { item, day }: Tick, today: string): 'item' | 'day' | null {
  if (!Number.isInteger(item) || item < 0 || item >= exercises.length) return 'item'
  const age = daysBetween(day, today)
  // A day that is none of the calendar has no age.
  return age >= 0 && age <= MAX_TICK_AGE_DAYS && daysBetween(since, day) >= 0 ? null : 'day'
}

/** How often one exercise was done: days of each week, and the goal of a week; or the goes of a skill. */
export type ExerciseProgress = Readonly<{
  exercise: Exercise
  /** Days it was ticked, the earliest first. */
  days: readonly string[]
  /** Ticked days of each week of the programme. */
  weeks: readonly number[]
  /** Of a skill: minutes of the next go; null after the last. */
  nextGoMin: number | null
}>

/** The progress of each exercise of a programme that is known. */
export function progressOf({ exercises, since, weeks }: Programme, ticks: readonly Tick[]): ExerciseProgress[] {
  return exercises.flatMap((id, item) => {
    const exercise = exerciseById(id)
    if (!exercise) return []
    const days = [...new Set(ticks.filter((tick) => tick.item === item).map(({ day }) => day))].sort()
    return {
      exercise,
      days,
      weeks: Array.from({ length: weeks }, (_, k) => days.filter((day) => weekOf(since, day) === k + 1).length),
      nextGoMin: exercise.goesMin?.[days.length] ?? null,
    }
  })
}
