import type { Role } from '../db/roles'

/** What somebody may want to do or see; everything behind a sign-in is one of these. */
export type Permission =
  /** Members' names, their places and their numbers. */
  | 'seeNumbers'
  | 'addMembers'
  | 'assignBikes'
  /** Classes, their blocks, places and queue. */
  | 'planClasses'
  /** Set-up evidence and class notes: data about bodies and health. */
  | 'seeNotes'
  | 'setUpRiders'
  /** Looks numbers over that a trainee saved. */
  | 'confirmNumbers'
  | 'writeNotes'
  | 'seeBikes'
  /** Tape, tilt, inspection and faults of one machine. */
  | 'inspectBikes'
  /** Types, their calibration, machines added and removed. */
  | 'manageBikes'
  /** The studio's school, what its checks cost, whether it learns. */
  | 'manageStudio'
  /** All that is stored about one member, taken out or erased; who saw and changed what. */
  | 'managePrivacy'

const DESK: readonly Permission[] = ['seeNumbers', 'addMembers', 'assignBikes', 'seeBikes']
/** Sets riders up and takes notes; what they save waits for a second person. */
const TRAINEE: readonly Permission[] = [...DESK, 'seeNotes', 'setUpRiders', 'writeNotes']
const INSTRUCTOR: readonly Permission[] = [...TRAINEE, 'planClasses', 'confirmNumbers', 'inspectBikes']
const PERMISSIONS: Readonly<Record<Role, ReadonlySet<Permission>>> = {
  desk: new Set(DESK),
  trainee: new Set(TRAINEE),
  instructor: new Set(INSTRUCTOR),
  manager: new Set([...INSTRUCTOR, 'manageBikes', 'manageStudio', 'managePrivacy']),
}

/** Whether a person's role lets them do or see something. */
export const can = ({ role }: Readonly<{ role: Role }>, permission: Permission): boolean =>
  PERMISSIONS[role].has(permission)
