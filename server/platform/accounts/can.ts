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
const INSTRUCTOR: readonly Permission[] = [
  ...DESK,
  'planClasses',
  'seeNotes',
  'setUpRiders',
  'writeNotes',
  'inspectBikes',
]
const PERMISSIONS: Readonly<Record<Role, ReadonlySet<Permission>>> = {
  desk: new Set(DESK),
  instructor: new Set(INSTRUCTOR),
  manager: new Set([...INSTRUCTOR, 'manageBikes', 'manageStudio', 'managePrivacy']),
}

/** Whether a person's role lets them do or see something. */
export const can = ({ role }: Readonly<{ role: Role }>, permission: Permission): boolean =>
  PERMISSIONS[role].has(permission)
