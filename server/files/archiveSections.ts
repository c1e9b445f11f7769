import { asc, getTableColumns, type SQL } from 'drizzle-orm'
import type { AnyMySqlColumn, MySqlTable } from 'drizzle-orm/mysql-core'
import { user } from '../platform/accounts/tables'
import * as bikes from '../bikes/tables'
import { registerCurrent, registerEntry } from '../setups/tables'
import * as classes from '../classes/tables'
import * as comfort from '../comfort/tables'
import * as floor from '../classes/rooms/tables'
import { memberMessage } from '../riders/memberPage/tables'
import * as riders from '../riders/tables'
import * as setups from '../setups/tables'

/** One part of an archive: the rows of one table of a studio, in the order of its key. */
export type ArchiveSection = Readonly<{
  name: SectionName
  table: MySqlTable & Readonly<{ studioId: AnyMySqlColumn }>
  /** Read and written page by page along these. */
  key: readonly AnyMySqlColumn[]
  /** Columns as the archive names them, without the studio and what the database counts itself. */
  columns: Readonly<Record<string, AnyMySqlColumn>>
  /** Columns that name a row of an earlier section, and which. */
  refersTo: Readonly<Record<string, SectionName>>
  /** JSON columns with a schema, by its name. */
  shapes: Readonly<Record<string, string>>
}>

/** In the order they are written in: what is referred to comes before what refers to it. */
export const SECTION_NAMES = [
  'people',
  'typeLines',
  'types',
  'typeReadings',
  'bikes',
  'bikeReadings',
  'inspections',
  'care',
  'saddles',
  'saddleFittings',
  'faults',
  'members',
  'memberMerges',
  'consentWordings',
  'consents',
  'limits',
  'plans',
  'setups',
  'evidence',
  'withdrawals',
  'setupSchools',
  'register',
  'registerCurrent',
  'rooms',
  'bikePlaces',
  'classes',
  'classRiders',
  'assignmentLog',
  'assignments',
  'notes',
  'looks',
  'roomCues',
  'moves',
  'cues',
  'followUps',
  'memberMessages',
  'complaints',
  'trials',
  'trialRatings',
  'programmes',
  'programmeTicks',
  'riderFiles',
] as const
export type SectionName = (typeof SECTION_NAMES)[number]
/** Sections that older archives are without, by the version that brought them. */
const SINCE: Readonly<Record<number, readonly SectionName[]>> = {
  3: ['complaints', 'trials', 'trialRatings'],
  4: ['memberMerges', 'followUps'],
  5: ['moves', 'limits', 'plans'],
  6: ['consentWordings', 'consents'],
  8: ['programmes', 'programmeTicks', 'riderFiles'],
  9: ['care', 'saddles', 'saddleFittings'],
}
/** Columns that older archives are without; all may be empty. */
export const ADDED_COLUMNS: Readonly<Partial<Record<SectionName, readonly string[]>>> = {
  members: ['number', 'email', 'statureMm'],
  bikes: ['retiredAt', 'careIntervals'],
  classes: ['teacherId'],
  notes: ['hands'],
  register: ['awaitsConfirmation', 'confirmedBy', 'confirmedAt'],
}
/** The sections an archive of this version has no place for, with the version that brought each. */
export const sectionsAfter = (version: number): ReadonlyMap<string, number> =>
  new Map(
    Object.entries(SINCE).flatMap(([since, names]) =>
      Number(since) > version ? names.map((name): [string, number] => [name, Number(since)]) : [],
    ),
  )

/** Implied by a row's place; counted or computed by the database; secrets that open a page. */
const LEFT_OUT = ['studioId', 'position', 'linkId', 'takenNumber']
const PERSON = 'people' as const
const BY = { createdBy: PERSON }
const SEAT = { classId: 'classes', bikeId: 'bikes', memberId: 'members', ...BY } as const

const section = (
  name: SectionName,
  table: ArchiveSection['table'],
  key: readonly AnyMySqlColumn[],
  refersTo: ArchiveSection['refersTo'],
  shapes: ArchiveSection['shapes'] = {},
): ArchiveSection => ({
  name,
  table,
  key,
  refersTo,
  shapes,
  columns: Object.fromEntries(
    Object.entries(getTableColumns(table)).filter(([column]) => !LEFT_OUT.includes(column)),
  ) as ArchiveSection['columns'],
})

/** Of a person the archive has the name and role, and no credentials. */
const people: ArchiveSection = {
  ...section('people', user as never, [user.id], {}),
  columns: { id: user.id, name: user.name, role: user.role },
}

export const SECTIONS: readonly ArchiveSection[] = [
  people,
  section('typeLines', bikes.bikeTypeLine, [bikes.bikeTypeLine.id], {}),
  section(
    'types',
    bikes.bikeType,
    [bikes.bikeType.id],
    { lineId: 'typeLines', ...BY },
    { definition: 'bikeType', equipment: 'equipment' },
  ),
  section('typeReadings', bikes.typeReading, [bikes.typeReading.position], { typeId: 'types', ...BY }),
  section(
    'bikes',
    bikes.bike,
    [bikes.bike.id],
    { typeId: 'types' },
    { machineCalibration: 'bike', careIntervals: 'careIntervals' },
  ),
  section('bikeReadings', bikes.bikeReading, [bikes.bikeReading.position], { bikeId: 'bikes', ...BY }),
  section('inspections', bikes.inspection, [bikes.inspection.id], { bikeId: 'bikes', ...BY }),
  section('care', bikes.bikeCare, [bikes.bikeCare.id], { bikeId: 'bikes', ...BY }),
  section('saddles', bikes.saddle, [bikes.saddle.id], BY, { model: 'saddleModel' }),
  section('saddleFittings', bikes.saddleFitting, [bikes.saddleFitting.position], {
    bikeId: 'bikes',
    saddleId: 'saddles',
    ...BY,
  }),
  section('faults', bikes.bikeFault, [bikes.bikeFault.id], { bikeId: 'bikes', foundBy: PERSON, resolvedBy: PERSON }),
  section('members', riders.member, [riders.member.id], BY),
  section('memberMerges', riders.memberMerge, [riders.memberMerge.id], { memberId: 'members', ...BY }),
  section('consentWordings', riders.consentWording, [riders.consentWording.version], BY),
  section('consents', riders.consent, [riders.consent.id], { memberId: 'members', endedBy: PERSON, ...BY }),
  section('limits', riders.riderLimit, [riders.riderLimit.id], { memberId: 'members', endedBy: PERSON, ...BY }),
  section('plans', riders.riderPlan, [riders.riderPlan.id], { memberId: 'members', endedBy: PERSON, ...BY }),
  section(
    'setups',
    setups.setup,
    [setups.setup.id],
    { memberId: 'members', bikeId: 'bikes', typeId: 'types', startedBy: PERSON, finishedBy: PERSON },
    { machineCalibration: 'bike' },
  ),
  section('evidence', setups.evidence, [setups.evidence.position], { setupId: 'setups', ...BY }),
  section('withdrawals', setups.withdrawal, [setups.withdrawal.evidenceId], { evidenceId: 'evidence', ...BY }),
  section('setupSchools', setups.setupSchool, [setups.setupSchool.position], { setupId: 'setups', ...BY }),
  section(
    'register',
    registerEntry,
    [registerEntry.id],
    {
      memberId: 'members',
      lineId: 'typeLines',
      typeId: 'types',
      bikeId: 'bikes',
      setupId: 'setups',
      confirmedBy: PERSON,
      ...BY,
    },
    { marks: 'marks', machineCalibration: 'bike' },
  ),
  section(
    'registerCurrent',
    registerCurrent,
    [registerCurrent.memberId, registerCurrent.lineId, registerCurrent.purpose],
    { memberId: 'members', lineId: 'typeLines', entryId: 'register' },
  ),
  section('rooms', floor.room, [floor.room.id], {}, { plan: 'roomPlan' }),
  section('bikePlaces', floor.bikePlace, [floor.bikePlace.bikeId], { bikeId: 'bikes', roomId: 'rooms' }),
  section(
    'classes',
    floor.studioClass,
    [floor.studioClass.id],
    { roomId: 'rooms', teacherId: PERSON, ...BY },
    { blocks: 'blocks' },
  ),
  section('classRiders', classes.classRider, [classes.classRider.classId, classes.classRider.memberId], {
    classId: 'classes',
    memberId: 'members',
    pinnedBikeId: 'bikes',
    ...BY,
  }),
  section('assignmentLog', classes.bikeAssignmentLog, [classes.bikeAssignmentLog.position], SEAT),
  section('assignments', classes.bikeAssignment, [classes.bikeAssignment.classId, classes.bikeAssignment.bikeId], SEAT),
  section('notes', classes.classNote, [classes.classNote.id], SEAT),
  section('looks', classes.classLook, [classes.classLook.id], SEAT),
  section('roomCues', classes.classCue, [classes.classCue.id], { classId: 'classes', ...BY }),
  section('moves', classes.markMove, [classes.markMove.id], {
    ...SEAT,
    id: 'register',
    fromEntryId: 'register',
  }),
  section('cues', classes.studioCue, [classes.studioCue.sign], BY),
  section(
    'followUps',
    classes.classFollowUp,
    [classes.classFollowUp.classId, classes.classFollowUp.memberId, classes.classFollowUp.kind],
    { classId: 'classes', memberId: 'members', handedTo: PERSON, ...BY },
  ),
  section('memberMessages', memberMessage, [memberMessage.id], { memberId: 'members', handledBy: PERSON }),
  section('complaints', comfort.complaint, [comfort.complaint.id], {
    ...SEAT,
    noteId: 'notes',
    handedBy: PERSON,
    closedBy: PERSON,
  }),
  section(
    'trials',
    comfort.trial,
    [comfort.trial.id],
    {
      memberId: 'members',
      complaintId: 'complaints',
      bikeId: 'bikes',
      fromEntryId: 'register',
      entryId: 'register',
      startedBy: PERSON,
      endedBy: PERSON,
    },
    { fromMarks: 'marks', toMarks: 'marks' },
  ),
  section('trialRatings', comfort.trialRating, [comfort.trialRating.id], { trialId: 'trials', ...BY }),
  section('programmes', comfort.programme, [comfort.programme.id], { memberId: 'members', endedBy: PERSON, ...BY }),
  section('programmeTicks', comfort.programmeTick, [comfort.programmeTick.id], { programmeId: 'programmes' }),
  section('riderFiles', setups.riderFile, [setups.riderFile.id], { memberId: 'members', ...BY }),
]

/** The order of a section's rows. */
export const orderOf = ({ key }: ArchiveSection): SQL[] => key.map((column) => asc(column))
