import type { BikeType } from '@/core/bike/bike'
import type { Marks } from '@/core/conventions'
import type { LandmarkAtMark } from '@/core/evidence/landmarks'
import type { MeantReason } from '@/core/evidence/kinds/set'
import type { Evidence, EvidenceOf } from '@/core/evidence/registry'
import type { CheckName } from '@/core/messages/checks'
import type { MisSetResponse } from '@/core/operations/misSet'
import type { Recommendation } from '@/core/operations/recommend'
import type { Purpose } from '@/core/register/entry'
import type { School } from '@/core/school/school'
import type { Row, Step } from './flow'

/** Numbers saved earlier on this type, with what the rider then answered; `when` is a date as said. */
export type PreviousNumbers = Readonly<{ marks: Marks; meant?: MeantReason; when: string; rider: Evidence | null }>

/** What the rider answered at an earlier set-up, so many days ago. */
export type AnsweredBefore = Readonly<{ row: EvidenceOf<'rider'>; agoDays: number }>

/** What the dock and its questions are told, and what they may do. */
export type StepPanelProps = Readonly<{
  setupId: string
  /** Where this set-up goes by another school than the studio's. */
  ownSchool: Partial<School>
  step: Step
  /** The card that lies open, and those of this step. */
  check: CheckName
  checks: readonly CheckName[]
  rows: readonly Row[]
  /** The rider's saved numbers on this type, if any. */
  previous: PreviousNumbers | null
  /** What the rider answered last on any type, and how long ago; null where nothing is known. */
  answeredBefore: AnsweredBefore | null
  answer: Recommendation | null
  working: boolean
  bikeType: BikeType
  school: School
  set: boolean
  shown: Marks
  landmark: LandmarkAtMark
  /** Landmarks valid on this type. */
  landmarks: readonly LandmarkAtMark[]
  finished: boolean
  busy: boolean
  canSave: boolean
  trouble: string
  /** What may be mis-set here, the likeliest first; null where there is nothing to compare. */
  misSet: MisSetResponse | null
  bikeId: string
  onCheck: (check: CheckName) => void
  onLandmark: (landmark: LandmarkAtMark) => void
  onAdd: (row: Evidence) => void
  onReplace: (old: Row | undefined, row: Evidence) => void
  /** The bike stood at other marks than was thought when it was looked at. */
  onTakenAt: (truly: Marks) => void
  onStep: (step: Step) => void
  /** What the numbers are kept for. */
  purpose: Purpose
  onPurpose: (purpose: Purpose) => void
  onFinish: () => void
  /** Somebody else saved this set-up meanwhile: start a new one from what stands here. */
  onGoOn?: () => void
  moving: boolean
}>
