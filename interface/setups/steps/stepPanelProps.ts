import type { BikeType } from '@/core/bikes/bike/bike'
import type { Marks } from '@/core/base/conventions'
import type { LandmarkAtMark } from '@/core/riders/evidence/definition/landmarks'
import type { MeantReason } from '@/core/riders/evidence/kinds/onBike/set'
import type { Evidence, EvidenceOf } from '@/core/riders/evidence/registry'
import type { CheckName } from '@/core/messages/setups/checks'
import type { MisSetResponse } from '@/core/operations/requests/misSet'
import type { Recommendation } from '@/core/operations/requests/recommend'
import type { Purpose } from '@/core/setups/register/entry'
import type { School } from '@/core/base/school/school'
import type { Row, Step } from './flow'

/** Numbers saved earlier on this type, with the rider's answers then; `when` is a date in words. */
export type PreviousNumbers = Readonly<{ marks: Marks; meant?: MeantReason; when: string; rider: Evidence | null }>

/** What the rider answered at an earlier set-up, so many days ago. */
export type AnsweredBefore = Readonly<{ row: EvidenceOf<'rider'>; agoDays: number }>

/** What does not change while a set-up is open. */
export type SetupContext = Readonly<{
  setupId: string
  memberId: string
  /** On the studio's clock, YYYY-MM-DD. */
  today: string
  /** A measured shorter leg: each knee has looks of its own; null without a difference. */
  shorterLeg: 'left' | 'right' | null
  /** What limits the rider for longer than this set-up, in words. */
  limitTexts: readonly string[]
  /** Whether the rider agreed to notes, and the question otherwise. */
  consent: Readonly<{ name: string; agrees: boolean; wording: string }>
  bikeId: string
  bikeType: BikeType
  school: School
  /** What of the school is this set-up's own. */
  ownSchool: Partial<School>
  /** The rider's saved numbers on this type, if any. */
  previous: PreviousNumbers | null
  /** What the rider answered last on any type, and how long ago; null without an earlier answer. */
  answeredBefore: AnsweredBefore | null
  /** Landmarks valid on this type. */
  landmarks: readonly LandmarkAtMark[]
}>

/** Saving the numbers. */
export type SavingState = Readonly<{
  finished: boolean
  busy: boolean
  canSave: boolean
  /** A new set-up is started from this one. */
  moving: boolean
  /** The purpose of the numbers. */
  purpose: Purpose
}>

export type StepActions = Readonly<{
  onCheck: (check: CheckName) => void
  onLandmark: (landmark: LandmarkAtMark) => void
  onAdd: (row: Evidence) => void
  onReplace: (old: Row | undefined, row: Evidence) => void
  /** Readings were taken at other marks than recorded. */
  onTakenAt: (truly: Marks) => void
  onStep: (step: Step) => void
  onPurpose: (purpose: Purpose) => void
  onFinish: () => void
  /** Starts a new set-up from this one; undefined unless another device saved this one. */
  onGoOn?: () => void
}>

/** Props of the step panel, and of the questions and cards within. */
export type StepPanelProps = Readonly<{
  step: Step
  /** The open check, and those of this step. */
  check: CheckName
  checks: readonly CheckName[]
  rows: readonly Row[]
  answer: Recommendation | null
  working: boolean
  set: boolean
  shown: Marks
  landmark: LandmarkAtMark
  trouble: string
  /** What may be mis-set here, the likeliest first; null where there is nothing to compare. */
  misSet: MisSetResponse | null
  context: SetupContext
  saving: SavingState
  actions: StepActions
}>
