import rows from './exercises.json' with { type: 'json' }

/** A point of a drawn pose: x to the right, y down, in a field of 200 by 120 with the floor at y = 110. */
export type PosePoint = readonly [x: number, y: number]
/** A body in lines; without a head it is a part of one. */
export type Pose = Readonly<{
  head?: PosePoint
  limbs: readonly (readonly PosePoint[])[]
  /** What is not the body: a stick, a saddle, bars. */
  props?: readonly (readonly PosePoint[])[]
}>

/**
 * Something to do off the bike, or a drill that lets a rider feel a cue, as a suggestion and no therapy (common
 * practice, no source; words and drawings are ours).
 */
export type Exercise = Readonly<{
  id: string
  name: string
  howOften: string
  how: string
  /** As the tables of causes and signs name it. */
  named: string
  kind: 'strength' | 'drill' | 'skill'
  /** Days a week it is done on; none for what belongs to a ride. */
  perWeek?: number
  /** Of a skill that is learned in a few goes: the minutes of each. */
  goesMin?: readonly number[]
  /** Each with where it begins, drawn faintly. */
  drawn: readonly Readonly<{ from?: Pose; to: Pose }>[]
}>

/** The exercises as they ship; `exercises.test.ts` validates them. */
export const EXERCISES: readonly Exercise[] = rows as unknown as Exercise[]

/** The exercise a table names; undefined for other words. */
export const exerciseNamed = (words: string): Exercise | undefined => EXERCISES.find(({ named }) => named === words)

/** An exercise by its id; undefined for any other word. */
export const exerciseById = (id: string): Exercise | undefined => EXERCISES.find((one) => one.id === id)
