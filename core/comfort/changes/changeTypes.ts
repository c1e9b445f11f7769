import type { Label } from '../../base/conventions'
import type { School } from '../../base/school/school'
import type { ChangedAxis, Way } from '../model/causeTable'
import type { ExplainRequest, Finding } from '../model/request'

/** One change of the bike: from one mark to another, mm along the axis, or degrees of the saddle's tilt. */
export type Change = Readonly<{
  axis: ChangedAxis
  direction: Way
  from?: Label
  to?: Label
  mm?: number
  deg?: number
  /** More than a large step of its axis in one step. */
  large: boolean
}>

/** What a check should read after a change; `from` only where it was read before. */
export type Expected = Readonly<{
  check: 'kneeFlexion' | 'plumb' | 'barAgainstSaddle' | 'tilt'
  from?: number
  to?: number
  /** How much it should move. */
  by: number
}>

/** A request as the input of a change; `findings` are the valid ones at the current marks. */
export type ChangeInputs = Pick<ExplainRequest, 'bikeType' | 'marks' | 'findings' | 'experience' | 'health'> &
  Readonly<{
    school: School
    /** The heaviest weight of the causes that each axis puts right. */
    leadingWeight: (axis: ChangedAxis) => number
  }>
/** A change, what the checks should read then, and the slide where the height's marks are far apart. */
export type Proposal = Readonly<{ change: Change; expect: readonly Expected[]; orSlide?: Change }>
/** Why there is no change for a cause. */
export type NoChange =
  /** It is not put right by moving an axis. */
  | Readonly<{ code: 'notOfAnAxis' }>
  /** This bike has no such axis. */
  | Readonly<{ code: 'lacksAxis'; axis: ChangedAxis }>
  | Readonly<{ code: 'atEnd'; axis: ChangedAxis }>
  /** The reading that sets the size of the change is missing: it is taken first. */
  | Readonly<{ code: 'measureFirst'; axis: ChangedAxis; measure: Finding['kind'] }>
  /** Its own checks are as they should be. */
  | Readonly<{ code: 'alreadyRight'; axis: ChangedAxis }>
  /** A check that was read would get worse. */
  | Readonly<{ code: 'wouldWorsen'; axis: ChangedAxis; check: Expected['check'] | 'reach' | 'clearance' }>
