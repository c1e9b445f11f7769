/** @jest-environment node */
import { readdirSync } from 'node:fs'
import { join } from 'node:path'
import { eq } from 'drizzle-orm'
import { DEFAULT_EQUIPMENT } from '@/core/bikes/bike/equipment'
import { HOLES_BIKE } from '@/core/testing/meanRider'
import { positionsOf } from '@/core/bikes/scale/scale'
import { can, type Permission } from '@/server/platform/accounts/can'
import { ROLES, type Role } from '@/server/platform/db/roles'
import type { Scope } from '@/server/platform/accounts/scope'
import * as bikeReadings from '@/server/bikes/bikeReadings'
import * as bikes from '@/server/bikes/bikes'
import * as codes from '@/server/bikes/codes'
import { calibrateType } from '@/server/bikes/calibrateType'
import * as care from '@/server/bikes/care'
import * as saddles from '@/server/bikes/saddles'
import * as inspections from '@/server/bikes/inspections'
import { lockMachine, recomputeMachine } from '@/server/bikes/machineCalibration'
import * as tapeReadings from '@/server/bikes/tapeReadings'
import * as versions from '@/server/bikes/versions'
import { afterClass } from '@/server/pages/classes/after'
import * as assignments from '@/server/classes/assignments'
import { importTimetable } from '@/server/classes/importTimetable'
import * as classes from '@/server/classes/classes'
import { floorBefore } from '@/server/pages/classes/floor'
import * as followUps from '@/server/classes/followUps'
import * as planning from '@/server/classes/planning'
import { PLAIN_ROOM } from '@/server/classes/planning'
import * as replan from '@/server/classes/replan'
import { roundOf } from '@/server/pages/classes/round'
import * as sheet from '@/server/pages/classes/sheet'
import * as riderContexts from '@/server/pages/comfort/riderContext'
import * as moves from '@/server/classes/moves'
import * as movable from '@/server/pages/setups/movable'
import * as roster from '@/server/classes/roster'
import * as watch from '@/server/classes/watch'
import { readWatch, watchData } from '@/server/pages/classes/watch'
import * as rooms from '@/server/classes/rooms/rooms'
import * as complaints from '@/server/comfort/complaints'
import { filesPage } from '@/server/pages/studio/files'
import * as carriedBodies from '@/server/setups/carriedBodies'
import * as studioKeys from '@/server/studio/studioKeys'
import { bringRiderFile } from '@/server/files/riderFile/bring'
import { makeRiderFile, riderFileContents } from '@/server/files/riderFile/make'
import { readRiderFile } from '@/server/files/riderFile/read'
import { riderFileResponse } from '@/server/files/riderFile/response'
import * as programmes from '@/server/comfort/programmes'
import { riderProgrammes } from '@/server/pages/comfort/programmes'
import { findingsOnFile } from '@/server/pages/comfort/findings'
import { studioPicture } from '@/server/pages/comfort/picture'
import { moveMark, undoMove } from '@/server/commands/useCases/moveMark'
import { startTrial } from '@/server/commands/useCases/startTrial'
import * as reasons from '@/server/pages/comfort/reasons'
import { setReferralText } from '@/server/comfort/referral'
import { listRides, ridersOfBike } from '@/server/comfort/rides'
import { stopsOf } from '@/server/comfort/stops'
import { storyOf } from '@/server/pages/comfort/story'
import * as trialChanges from '@/server/comfort/trialChanges'
import * as trials from '@/server/comfort/trials'
import { today } from '@/server/pages/classes/today'
import { trialsOnFloor } from '@/server/comfort/trialsOnFloor'
import { schoolOf } from '@/core/base/school/school'
import * as notes from '@/server/classes/notes'
import { listSeats } from '@/server/classes/seats'
import { connectionPool, database, closeDatabase, withTransaction } from '@/server/platform/db/connection'
import { session, studio, user } from '@/server/platform/accounts/tables'
import { member } from '@/server/riders/tables'
import * as archiveExport from '@/server/files/archiveExport'
import * as archiveImport from '@/server/files/archiveImport'
import { sampleList } from '@/server/files/sampleList'
import { memberListStream } from '@/server/files/exportMembers'
import * as importMembers from '@/server/files/importMembers'
import * as importPlan from '@/server/files/importPlan'
import * as uploads from '@/server/files/uploads'
import * as limits from '@/server/riders/limits'
import * as plans from '@/server/riders/plans'
import * as invitations from '@/server/studio/invitations'
import * as firstHour from '@/server/pages/studio/firstHour'
import { DEFAULT_CONSENT_WORDING } from '@/core/messages/riders/consent'
import { memberDataPage } from '@/server/pages/riders/memberData'
import { privacyPage } from '@/server/pages/studio/privacy'
import { listAccess } from '@/server/privacy/accessLog/list'
import * as accessSettle from '@/server/privacy/accessLog/settle'
import { verifyAccessLog } from '@/server/privacy/accessLog/verify'
import * as erasures from '@/server/privacy/eraseMember'
import { memberFile } from '@/server/privacy/memberFile'
import { memberFileResponse } from '@/server/privacy/memberFileResponse'
import * as alone from '@/server/setups/aloneSetups'
import { aloneItems } from '@/server/pages/classes/alone'
import { showRider } from '@/server/pages/riders/showRider'
import * as confirmation from '@/server/setups/confirmation'
import * as consents from '@/server/riders/consent'
import * as retention from '@/server/privacy/retention'
import { devicesPage } from '@/server/pages/studio/devices'
import { operationPage } from '@/server/pages/studio/operation'
import { peoplePage } from '@/server/pages/studio/people'
import { duePlans, plansOf } from '@/server/pages/riders/plans'
import * as links from '@/server/riders/memberPage/links'
import * as messages from '@/server/riders/memberPage/messages'
import * as merge from '@/server/commands/useCases/mergeMembers'
import { accommodationPage } from '@/server/pages/bikes/accommodation'
import { fleetPage } from '@/server/pages/bikes/fleet'
import { careOfBikes } from '@/server/pages/bikes/care'
import { inspectionRound } from '@/server/pages/bikes/inspectionRound'
import { machinePage } from '@/server/pages/bikes/machine'
import { roomPage } from '@/server/pages/classes/room'
import { timetable } from '@/server/pages/classes/timetable'
import { riderPage } from '@/server/pages/riders/rider'
import { setupPage } from '@/server/pages/setups/setup'
import { studioPage } from '@/server/pages/studio/studio'
import { searchMembers } from '@/server/pages/riders/members'
import { latestNumbers } from '@/server/setups/latestNumbers'
import { listSetupsBetween } from '@/server/setups/finishedSetups'
import { retireBike } from '@/server/classes/retireBike'
import * as members from '@/server/riders/members/members'
import * as words from '@/server/riders/members/words'
import { takeEntry } from '@/server/commands/takeEntry'
import { findWithNumbers } from '@/server/setups/findWithNumbers'
import * as proposals from '@/server/setups/proposals'
import * as register from '@/server/setups/register'
import * as evidence from '@/server/setups/evidence'
import * as learned from '@/server/setups/learned'
import * as residuals from '@/server/setups/riderResiduals'
import * as setups from '@/server/setups/setups'
import * as setupSchools from '@/server/setups/setupSchool'
import { makeKey } from '@/server/platform/accounts/apiKeys'
import * as people from '@/server/studio/people'
import * as tablets from '@/server/classes/rooms/tablets'
import * as studios from '@/server/studio/studio'
import { GET as getRows } from '@/app/api/set-ups/[id]/rows/route'
import { POST as postOutbox } from '@/app/api/outbox/route'
import { POST as postCommand } from '@/app/api/v1/commands/[name]/route'
import { send, sendFromCode, sendOwn, sendQuery } from '@/interface/commands/send'
import { CODE_COMMANDS, COMMANDS, OWN_COMMANDS, QUERIES as COMMAND_QUERIES } from '@/server/commands/registry'

jest.mock('@/server/classes/calendar/readInThread', () => jest.requireActual('../support/calendarHere'))
jest.mock('@/server/platform/compute/pool', () => jest.requireActual('../support/computeHere'))

let person: (Scope & { name: string }) | null = null
jest.mock('@/server/platform/accounts/session', () => ({
  currentUser: async () => person,
  requireUser: async () => {
    if (!person) throw new Error('sent to sign in')
    return person
  },
}))
jest.mock('next/headers', () => ({ headers: async () => new Headers({ 'x-forwarded-for': 'scope' }) }))

const db = database()
const now = new Date('2026-07-08T09:10:11.012Z')
/** Stands in every name of the other studio, and must come out of no call made for this one. */
const SECRET = 'Kept Elsewhere'
const [here, there] = ['netloft-hall', 'the-other-hall'].map((studioId): Scope => ({
  studioId,
  userId: studioId === 'netloft-hall' ? 'ines-harrow' : 'other-person',
  role: 'manager',
}))
const id = () => crypto.randomUUID()
const marks = { seatHeight: '7', seatSlide: 'D', barHeight: '6', barSlide: '0' }
const tape = { marks, lengths: { stackMm: 700 } }
const row = { kind: 'kneeByEye', seen: 'slightBend', at: { seatHeight: '7', seatSlide: 'D' } } as const
const document = { bikeType: { ...HOLES_BIKE, name: SECRET }, equipment: DEFAULT_EQUIPMENT }

/** The other studio's rows, by what they are. */
const other = {
  line: '',
  type: id(),
  bike: '',
  member: id(),
  setup: id(),
  finished: id(),
  row: id(),
  note: id(),
  room: id(),
  ofClass: id(),
  seen: id(),
  cue: id(),
  care: id(),
  saddle: id(),
  look: id(),
  fault: id(),
  tape: id(),
  reading: id(),
  message: id(),
  felt: id(),
  complaint: id(),
  trial: id(),
  merged: id(),
  moved: id(),
  limit: id(),
  plan: id(),
  invitation: id(),
  session: id(),
  key: id(),
  keyHash: 'ab'.repeat(32),
  tablet: id(),
  alone: id(),
  programme: id(),
}

beforeAll(async () => {
  await db
    .insert(studio)
    .values({ id: there.studioId, name: SECRET, place: SECRET, timeZone: 'Europe/Oslo', school: {} })
  await db.insert(user).values({
    id: there.userId,
    name: SECRET,
    email: 'other@elsewhere.example',
    studioId: there.studioId,
    role: 'manager',
  })
  const written = await versions.writeVersion(db, there, { id: other.type, baseId: null, document }, now)
  if (written.outcome !== 'kept') throw new Error(written.outcome)
  other.line = written.lineId
  const program = { id: other.key, name: SECRET, scope: 'desk', keyHash: other.keyHash } as const
  await makeKey(db, there, program, now)
  await bikes.addBikes(db, there, other.line, [1, 2])
  other.bike = (await bikes.listBikes(db, there))[0].id
  await members.addMember(db, there, { id: other.member, name: SECRET }, now)
  for (const setupId of [other.finished, other.setup]) {
    await setups.startSetup(db, there, { id: setupId, memberId: other.member, bikeId: other.bike }, now)
    await evidence.appendEvidence(db, there, setupId, { id: setupId === other.setup ? other.row : id(), row }, now)
    if (setupId === other.finished) await evidence.finishSetup(db, there, setupId, { id: id(), marks }, now)
  }
  const note = { region: 'knees', sign: SECRET, side: 'left', createdAt: now } as const
  await notes.addNote(db, there, { id: other.note, memberId: other.member, bikeId: other.bike, ...note })
  const places = [{ bikeId: other.bike, xM: 1, yM: 2, headingDeg: 0 }]
  await rooms.saveRoom(db, there, { id: other.room, name: SECRET, plan: PLAIN_ROOM, places }, now)
  await tablets.pairTablet(db, there, TABLET, now)
  const ofClass = { id: other.ofClass, title: SECRET, startsAt: now, endsAt: now, roomId: other.room }
  await classes.addClass(db, there, ofClass, now)
  await roster.bookRider(db, there, { classId: other.ofClass, memberId: other.member, ...BOOKED }, now)
  const seat = { id: id(), bikeId: other.bike, memberId: other.member, classId: other.ofClass }
  await assignments.assignBike(db, there, seat, now)
  const inClass = { classId: other.ofClass, memberId: other.member, bikeId: other.bike, createdAt: now }
  await watch.addLook(db, there, { id: other.seen, ...inClass, numbers: true })
  const said = { sign: 'kneesOut', cue: SECRET, concerned: [other.member] }
  await watch.addRoomCue(db, there, { id: other.cue, classId: other.ofClass, ...said, createdAt: now })
  await watch.setCueText(db, there, 'kneesOut', SECRET, now)
  await tapeReadings.addTapeReading(db, there, { id: other.tape, typeId: other.type, row: tape }, now)
  const reading = { kind: 'tape', ...tape } as const
  await bikeReadings.addBikeReading(db, there, { id: other.reading, bikeId: other.bike, row: reading }, now)
  const moved = await withTransaction(db, (tx) => moveMark(tx as typeof db, there, otherMove(other.moved), now))
  if (moved.outcome !== 'kept') throw new Error(JSON.stringify(moved))
  await limits.recordLimit(db, there, { id: other.limit, memberId: other.member, limit: LIMIT }, now)
  await plans.recordPlan(db, there, { id: other.plan, memberId: other.member, plan: PLAN }, now)
  await db.insert(session).values({
    id: other.session,
    token: other.session,
    userId: there.userId,
    expiresAt: new Date(now.getTime() + 86_400_000),
  })
  await invitations.invite(db, there, { id: other.invitation, role: 'desk', userId: null }, now)
  const link = (await links.openLink(db, there, other.member, now))!
  const owner = (await links.ownerOf(db, link.token, now))!
  const felt = { comfort: 3, place: 'knees', line: SECRET } as const
  const bother = { what: 'hands', strength: 4, line: SECRET } as const
  await complaints.addComplaint(db, there, { id: other.complaint, memberId: other.member, ...bother }, now)
  const where = { memberId: other.member, bikeId: other.bike, createdAt: now } as const
  const knee = { region: 'feltKneeFront', sign: 'felt', side: 'left', score: 4 } as const
  await notes.addNote(db, there, { id: other.felt, ...where, ...knee })
  await withTransaction(db, (tx) => trialChanges.insertTrial(tx, there, OTHER_TRIAL, now))
  await trialChanges.rateTrial(db, there, { id: id(), trialId: other.trial, rating: 3 }, now)
  await messages.addMessage(db, owner, { id: other.message, kind: 'felt', body: felt }, now)
  const given = { id: other.programme, memberId: other.member, ...EXERCISES_GIVEN }
  await withTransaction(db, (tx) => programmes.giveProgramme(tx, there, given, now))
  await members.addMember(db, there, { id: other.merged, name: SECRET }, now)
  await merge.mergeMembers(db, there, { from: other.merged, into: other.member }, now)
  const line = { classId: other.ofClass, memberId: other.member, kind: 'noted' } as const
  await followUps.followUp(db, there, line, { state: 'handed', handedTo: there.userId, said: SECRET }, now)
  const left = { id: other.alone, name: SECRET, rows: OWN_ROWS }
  await alone.leaveAloneSetup(db, { studioId: there.studioId, bikeId: other.bike }, left, now)
  const fault = { id: other.fault, item: 'pins', note: SECRET } as const
  const look = { id: other.look, bikeId: other.bike, good: [], faults: [fault] }
  await inspections.recordInspection(db, there, look, now)
  await saddles.saveSaddle(db, there, { id: other.saddle, model: { ...SADDLE, name: SECRET } }, now)
  await saddles.fitSaddle(db, there, { id: id(), bikeId: other.bike, saddleId: other.saddle }, now)
  await care.recordCare(db, there, { ...CARE, id: other.care, bikeId: other.bike }, now)
})
afterAll(async () => {
  await db.update(user).set({ studioId: null }).where(eq(user.id, there.userId))
  await closeDatabase()
})

/** Every row of a studio in every table that has any, as text. */
async function everyRowOf(studioId: string): Promise<string> {
  const [tables] = (await connectionPool().query(
    'SELECT table_name AS name FROM information_schema.columns WHERE table_schema = ' +
      "DATABASE() AND column_name = 'studio_id' ORDER BY 1",
  )) as unknown as [{ name: string }[]]
  const rows = await Promise.all(
    tables.map(
      async ({ name }) => (await connectionPool().query(`SELECT * FROM ${name} WHERE studio_id = ?`, [studioId]))[0],
    ),
  )
  return JSON.stringify(rows)
}

type Call = () => unknown
type Walk = Readonly<Record<string, Call>>

/** A tablet of the other studio, in its room. */
const TABLET = { id: other.tablet, name: SECRET, roomId: other.room, idleMinutes: 5, tokenHash: 'cd'.repeat(32) }
const ids = () => ({ id: id(), bikeId: other.bike })
const SADDLE = {
  name: 'Broad',
  widthMm: 170,
  lengthMm: 265,
  noseAheadMm: 140,
  shape: 'curved',
  relief: 'cutOut',
  padding: 'soft',
  board: 'frontHalf',
} as const
const CARE = { part: 'saddle', deed: 'done', note: SECRET } as const
const LIMIT = { kind: 'heart', since: '2026-01-01', clearedBy: SECRET } as const
const PLAN = { kind: 'cleats', since: '2026-01-01', words: SECRET } as const
const MOVE = { axis: 'barHeight', from: '6', to: '7', why: 'comfort', again: 'wish' } as const
const otherMove = (moveId: string) => ({
  ...MOVE,
  id: moveId,
  memberId: other.member,
  bikeId: other.bike,
  classId: other.ofClass,
})
const OWN_ROWS = [{ kind: 'rider', experience: 'new' } as const, { kind: 'set', at: marks } as const]
const EXERCISES_GIVEN = { about: { sign: 'kneesIn' }, exercises: ['sideLegLifts'], weeks: 4 } as const
const OWN_TICK = { programmeId: other.programme, item: 0, day: '2026-07-08' }
/** A link of this studio to a member of the other. */
const linkHere = () =>
  ({ linkId: id(), studioId: here.studioId, memberId: other.member, name: '', opens: 'everything' }) as const
const OTHER_KEY = 'A'.repeat(43)
const UNSIGNED = {
  format: 'rider-set-up',
  formatVersion: 1,
  issuedAt: '2026-07-01T09:00:00.000Z',
  studio: { name: 'Elsewhere' },
  rider: { name: 'Somebody' },
  sets: [],
} as const
const TOLD_FILE = { ...UNSIGNED, studio: { name: 'Elsewhere', key: OTHER_KEY }, signature: 'A'.repeat(86) }
const BROUGHT = {
  text: JSON.stringify(TOLD_FILE),
  memberId: other.member,
  newName: null,
  sets: [],
  body: false,
  wish: false,
  limits: [],
}
const KEEP_ALL = { notes: null, complaints: null, sets: null }
const QUERIES: Readonly<Record<string, Walk>> = {
  'bikes/bikes': {
    listBikes: () => bikes.listBikes(db, here),
    listBikesOfRecords: () => bikes.listBikesOfRecords(db, here),
    findBike: () => bikes.findBike(db, here, other.bike),
    addBikes: () => bikes.addBikes(db, here, other.line, [801]),
    deleteBike: () => bikes.deleteBike(db, here, other.bike),
    listRetiredBikes: () => bikes.listRetiredBikes(db, here),
    renumberBike: () => bikes.renumberBike(db, here, other.bike, 804),
    returnBike: () => bikes.returnBike(db, here, other.bike),
  },
  'bikes/codes': {
    codesOfBikes: () => codes.codesOfBikes(db, here, [other.bike], now),
    changeCode: () => codes.changeCode(db, here, other.bike, now),
  },
  'setups/aloneSetups': {
    listAloneSetups: () => alone.listAloneSetups(db, here, now),
    lookAtAlone: () => alone.lookAtAlone(db, here, { id: other.alone, memberId: 'member-01', setupId: id() }, now),
    putAloneAside: () => alone.putAloneAside(db, here, other.alone, now),
  },
  'pages/classes/alone': { aloneItems: () => aloneItems(db, here, 'UTC', now) },
  'pages/riders/showRider': { showRider: () => showRider(db, here, other.member, now) },
  'bikes/bikeReadings': {
    listBikeReadings: () => bikeReadings.listBikeReadings(db, here, other.bike),
    addBikeReading: () =>
      bikeReadings.addBikeReading(db, here, { ...ids(), row: { kind: 'saddleLine', mm: 1, afterClosing: true } }, now),
    withdrawBikeReading: () =>
      bikeReadings.withdrawBikeReading(db, here, { id: other.reading, bikeId: other.bike }, now),
    findChangeSince: () => bikeReadings.findChangeSince(db, here, other.bike, new Date(0)),
  },
  'bikes/calibrateType': { calibrateType: () => calibrateType(db, here, { id: id(), typeId: other.type }, now) },
  'bikes/saddles': {
    listSaddles: () => saddles.listSaddles(db, here),
    saveSaddle: () => saddles.saveSaddle(db, here, { id: other.saddle, model: { ...SADDLE, name: id() } }, now),
    fitSaddle: () => saddles.fitSaddle(db, here, { ...ids(), saddleId: other.saddle }, now),
    fittingOf: () => saddles.fittingOf(db, here, other.bike),
  },
  'bikes/care': {
    listCare: () => care.listCare(db, here, other.bike),
    careIntervalsOf: () => care.careIntervalsOf(db, here, other.bike),
    recordCare: () => care.recordCare(db, here, { ...ids(), ...CARE }, now),
    withdrawCare: () => care.withdrawCare(db, here, { id: other.care, bikeId: other.bike }, now),
    setCareIntervals: () => care.setCareIntervals(db, here, { bikeId: other.bike, intervals: { pins: { days: 9 } } }),
  },
  'bikes/inspections': {
    lastInspections: async () =>
      [...(await inspections.lastInspections(db, here)).keys()].filter((b) => b === other.bike),
    listInspections: () => inspections.listInspections(db, here, other.bike),
    recordInspection: () => inspections.recordInspection(db, here, { ...ids(), good: [], faults: [] }, now),
    listFaults: () => inspections.listFaults(db, here, other.bike),
    resolveFault: () => inspections.resolveFault(db, here, { id: other.fault, bikeId: other.bike }, now),
  },
  'bikes/machineCalibration': {
    lockMachine: () => lockMachine(db, here, other.bike),
    recomputeMachine: () => recomputeMachine(db, here, other.bike),
  },
  'bikes/tapeReadings': {
    listTapeReadings: () => tapeReadings.listTapeReadings(db, here, other.type),
    addTapeReading: () => tapeReadings.addTapeReading(db, here, { id: id(), typeId: other.type, row: tape }, now),
    replaceTapeReadings: () =>
      tapeReadings.replaceTapeReadings(
        db,
        here,
        { typeId: other.type, replaced: [{ id: other.tape, newId: id(), row: tape }] },
        now,
      ),
    withdrawTapeReading: () => tapeReadings.withdrawTapeReading(db, here, other.tape, now),
  },
  'bikes/versions': {
    listTypes: () => versions.listTypes(db, here),
    listVersions: () => versions.listVersions(db, here, other.line),
    findType: () => versions.findType(db, here, other.type),
    writeVersion: () => versions.writeVersion(db, here, { id: other.type, baseId: other.type, document }, now),
    importTypes: async () => {
      const types = (await versions.listTypes(db, here)).slice(0, 1)
      return versions.importTypes(db, here, types, now)
    },
    deleteType: () => versions.deleteType(db, here, other.line),
  },
  'classes/assignments': {
    listAssignments: () => assignments.listAssignments(db, here, other.ofClass),
    assignBike: () => assignments.assignBike(db, here, { ...ids(), memberId: null, classId: other.ofClass }, now),
    lockClass: () => assignments.lockClass(db, here, other.ofClass),
  },
  'classes/moves': {
    numbersOn: async () => moves.numbersOn(db, here, other.member, (await bikes.findBike(db, there, other.bike))!),
    recordMove: async () => {
      const bike = (await bikes.findBike(db, there, other.bike))!
      return moves.recordMove(db, here, bike, { ...MOVE, id: id(), memberId: other.member, classId: null }, now)
    },
    ridersMovedOnDay: () => moves.ridersMovedOnDay(db, here, [other.member], now),
    findMove: () => moves.findMove(db, here, other.moved),
    undoMove: async () => {
      const move = (await moves.findMove(db, there, other.moved))!
      return moves.undoMove(db, here, { id: id(), move }, now)
    },
    listMovesOfClass: () => moves.listMovesOfClass(db, here, other.ofClass),
  },
  'commands/useCases/moveMark': {
    moveMark: () => withTransaction(db, (tx) => moveMark(tx as typeof db, here, otherMove(id()), now)),
    undoMove: () =>
      withTransaction(db, (tx) => undoMove(tx as typeof db, here, { id: id(), moveId: other.moved }, now)),
  },
  'pages/setups/movable': {
    movable: () => movable.movable(db, here, { memberId: other.member, bikeId: other.bike }, now),
    moveOutlook: () =>
      movable.moveOutlook(db, here, { memberId: other.member, bikeId: other.bike, axis: 'seatHeight', to: ['8'] }, now),
  },
  'classes/retireBike': { retireBike: () => retireBike(db, here, other.bike, now) },
  'setups/finishedSetups': {
    listSetupsBetween: () => listSetupsBetween(db, here, other.bike, new Date(0), new Date()),
  },
  'classes/seats': { listSeats: () => listSeats(db, here, other.ofClass) },
  'classes/classes': {
    listPlansAround: async () =>
      classes.listPlansAround(db, here, (await classes.findClass(db, there, other.ofClass))!),
    listClasses: () => classes.listClasses(db, here, new Date(0), new Date('2100-01-01')),
    findClass: () => classes.findClass(db, here, other.ofClass),
    classInRoom: () => classes.classInRoom(db, here, other.room, now),
    addClass: () => classes.addClass(db, here, { ...OTHER_CLASS, id: other.ofClass }, now),
    addClasses: () => classes.addClasses(db, here, [{ ...OTHER_CLASS, id: other.ofClass }], now),
    changeClass: () => classes.changeClass(db, here, other.ofClass, { title: 'Taken' }),
    changeClassFacts: () => {
      const facts = { title: SECRET, startsAt: now, endsAt: now, roomId: other.room, teacherId: null }
      return classes.changeClassFacts(db, here, other.ofClass, { from: facts, to: { ...facts, title: 'Taken' } })
    },
    repeatClass: async () => {
      const found = (await classes.findClass(db, there, other.ofClass))!
      const weeks = [{ id: other.ofClass, startsAt: now }]
      return classes.repeatClass(db, here, { ...found, title: 'Taken' }, weeks, now)
    },
    openFloor: () => classes.openFloor(db, here, { day: '2033-07-08', from: now, to: now }, now),
    upsertTimetable: () => classes.upsertTimetable(db, here, 'calendar', [ENTRY], now),
  },
  'classes/importTimetable': {
    importTimetable: () =>
      importTimetable(
        db,
        here,
        { text: `day,start,class,name\n2033-07-08,18:00,Dusk,${SECRET.slice(0, 4)}\n`, timeZone: 'UTC', take: true },
        now,
      ),
  },
  'classes/roster': {
    listRoster: () => roster.listRoster(db, here, other.ofClass),
    bookRider: () => roster.bookRider(db, here, { classId: other.ofClass, memberId: other.member, ...BOOKED }, now),
    changeRider: () => roster.changeRider(db, here, other.ofClass, [other.member], { warmUp: true }),
    upsertBooking: () =>
      roster.upsertBooking(db, here, { classId: other.ofClass, memberId: other.member, ...BOOKED }, undefined, now),
    lastBikes: async () => [...(await roster.lastBikes(db, here, [other.member], new Date('2100-01-01')))],
  },
  'classes/planning': {
    planBasis: async () => {
      const found = (await classes.findClass(db, there, other.ofClass))!
      return (await planning.planBasis(db, here, { ...found, title: '', roomName: '' }, now)).roster
    },
    planClass: async () => {
      const found = (await classes.findClass(db, there, other.ofClass))!
      return planning.planClass(db, here, { ...found, title: '', roomName: '' }, now)
    },
    readyRiders: async () => {
      const found = (await classes.findClass(db, there, other.ofClass))!
      return [...(await planning.readyRiders(db, here, [other.member], found))]
    },
    ridersWithKneeNotes: async () => [...(await planning.ridersWithKneeNotes(db, here, [other.member], now))],
  },
  'classes/replan': {
    replanClass: () => replan.replanClass(db, here, other.ofClass, now),
    restorePlaces: () =>
      replan.restorePlaces(db, here, other.ofClass, { after: [], seats: [], riders: [], added: [] }, now),
  },
  'pages/classes/sheet': {
    recordSheet: () => sheet.recordSheet(db, here, other.ofClass, [], now),
    outdatedSheet: () => sheet.outdatedSheet(db, here, other.ofClass),
  },
  'classes/followUps': {
    listFollowUps: () => followUps.listFollowUps(db, here, other.ofClass),
    listPutToClass: () => followUps.listPutToClass(db, here, { id: other.ofClass, startsAt: new Date('2100-01-01') }),
    listHandedToMe: () => followUps.listHandedToMe(db, { ...here, userId: there.userId }),
    followUp: () =>
      followUps.followUp(
        db,
        here,
        { classId: other.ofClass, memberId: other.member, kind: 'noted' },
        { state: null, handedTo: null, said: '' },
        now,
      ),
  },
  'pages/comfort/riderContext': {
    riderContext: () => riderContexts.riderContext(db, here, other.member, now),
    nextSeat: () => riderContexts.nextSeat(db, here, other.member, now),
  },
  'pages/bikes/fleet': { fleetPage: () => fleetPage(db, here, now) },
  'pages/bikes/machine': { machinePage: () => machinePage(db, here, other.bike, now) },
  'pages/bikes/care': {
    careOfBikes: async () => [...(await careOfBikes(db, here, now)).keys()].filter((one) => one === other.bike),
  },
  'pages/bikes/inspectionRound': { inspectionRound: () => inspectionRound(db, here, now) },
  'pages/bikes/accommodation': { accommodationPage: () => accommodationPage(db, here) },
  'pages/classes/timetable': { timetable: () => timetable(db, here, '2026-07-08', now) },
  'pages/classes/room': { roomPage: () => roomPage(db, here, other.room) },
  'pages/riders/rider': { riderPage: () => riderPage(db, here, other.member, now) },
  'pages/riders/memberData': { memberDataPage: () => memberDataPage(db, here, other.member, now) },
  'pages/studio/privacy': { privacyPage: () => privacyPage(db, here, { about: other.member }) },
  'privacy/accessLog/list': { listAccess: () => listAccess(db, here, { subject: other.member }) },
  'privacy/accessLog/settle': {
    settleAccessLog: () => accessSettle.settleAccessLog(db, here.studioId),
    chainEnd: () => accessSettle.chainEnd(db, here.studioId),
  },
  'privacy/accessLog/verify': { verifyAccessLog: () => verifyAccessLog(db, here.studioId) },
  'privacy/eraseMember': {
    eraseMember: () => erasures.eraseMember(db, here, other.member, now),
    wasErased: () => erasures.wasErased(db, here, other.member),
  },
  'privacy/memberFile': { memberFile: () => memberFile(db, here, other.member, now) },
  'privacy/memberFileResponse': {
    memberFileResponse: async () => (await memberFileResponse(db, here, other.member, 'data.json', now)).text(),
  },
  'setups/confirmation': {
    listWaitingNumbers: () => confirmation.listWaitingNumbers(db, here),
    confirmNumbers: () => confirmation.confirmNumbers(db, here, other.moved, now),
    confirmNumbersOf: () => confirmation.confirmNumbersOf(db, here, other.member, now),
  },
  'riders/consent': {
    currentWording: () => consents.currentWording(db, here),
    addWording: async () => consents.addWording(db, here, (await consents.currentWording(db, here)).wording, now),
    whoAgreed: () => consents.whoAgreed(db, here, [other.member]),
    consentOf: () => consents.consentOf(db, here, other.member),
    giveConsent: () => consents.giveConsent(db, here, other.member, 'spoken', now),
    withdrawConsent: () => consents.withdrawConsent(db, here, other.member, now),
    mayNote: () => consents.mayNote(db, here, other.member, true, now),
  },
  'privacy/retention': {
    retentionOf: () => retention.retentionOf(db, here),
    previewRetention: () => retention.previewRetention(db, here, KEEP_ALL, now),
    saveRetention: () => retention.saveRetention(db, here, KEEP_ALL),
    applyRetention: () => retention.applyRetention(db, here, now),
  },
  'pages/setups/setup': { setupPage: () => setupPage(db, here, other.setup, now) },
  'pages/studio/studio': { studioPage: () => studioPage(db, here) },
  'pages/classes/floor': {
    floorBefore: async () => {
      const found = (await classes.findClass(db, there, other.ofClass))!
      return floorBefore(db, here, { ...found, title: '', roomName: '' }, true, now)
    },
  },
  'pages/classes/watch': {
    readWatch: async () => {
      const found = (await classes.findClass(db, there, other.ofClass))!
      return readWatch(db, here, { ...found, title: '', roomName: '' }, now)
    },
    watchData: async () => {
      const found = (await classes.findClass(db, there, other.ofClass))!
      return watchData(db, here, { ...found, title: '', roomName: '' }, now)
    },
  },
  'pages/classes/after': {
    afterClass: async () => {
      const found = (await classes.findClass(db, there, other.ofClass))!
      return afterClass(db, here, { ...found, title: '', roomName: '' }, now)
    },
  },
  'pages/classes/round': {
    roundOf: async () => {
      const found = (await classes.findClass(db, there, other.ofClass))!
      return roundOf(db, here, { ...found, title: '', roomName: '' }, now)
    },
  },
  'classes/watch': {
    listLooks: () => watch.listLooks(db, here, other.ofClass),
    addLook: () =>
      watch.addLook(db, here, {
        id: other.seen,
        classId: other.ofClass,
        memberId: 'member-01',
        bikeId: 'bike-1',
        numbers: true,
        createdAt: now,
      }),
    listRoomCues: () => watch.listRoomCues(db, here, other.ofClass),
    addRoomCue: () =>
      watch.addRoomCue(db, here, {
        id: other.cue,
        classId: other.ofClass,
        sign: 'kneesIn',
        cue: 'x',
        concerned: [],
        createdAt: now,
      }),
    listOwnCues: () => watch.listOwnCues(db, here),
    setCueText: () => watch.setCueText(db, here, 'kneesOut', null, now),
    classState: () => watch.classState(db, here, other.ofClass),
  },
  'comfort/complaints': {
    listComplaints: () => complaints.listComplaints(db, here, other.member),
    openComplaints: () => complaints.openComplaints(db, here, [other.member]),
    listOpenComplaints: () => complaints.listOpenComplaints(db, here),
    listComplaintsOf: () => complaints.listComplaintsOf(db, here, [other.member]),
    feltAsComplaints: () => complaints.feltAsComplaints(db, here, [other.member], now),
    complaintsToAnswer: () => complaints.complaintsToAnswer(db, here, other.member, now),
    addComplaint: () =>
      complaints.addComplaint(db, here, { id: id(), memberId: other.member, what: 'feet', strength: 3 }, now),
    complaintFromNote: () => complaints.complaintFromNote(db, here, { memberId: other.member, id: other.felt }, now),
    recordReferral: () => complaints.recordReferral(db, here, other.complaint, 'nobody', now),
    closeComplaint: () => complaints.closeComplaint(db, here, other.complaint, now),
    reopen: () => complaints.reopen(db, here, { memberId: other.member, id: other.complaint }),
    complaintsOfNotes: () => complaints.complaintsOfNotes(db, here, other.member),
    recordSide: () => complaints.recordSide(db, here, { memberId: other.member, id: other.complaint }, 'left'),
  },
  'pages/comfort/findings': {
    findingsOnFile: () =>
      findingsOnFile(db, here, { memberId: other.member, bikeId: other.bike }, schoolOf({}), new Date()),
  },
  'pages/comfort/picture': { studioPicture: () => studioPicture(db, here, new Date()) },
  'pages/comfort/reasons': {
    reasonsOf: () => reasons.reasonsOf(db, here, other.member, now),
  },
  'commands/useCases/startTrial': {
    startTrial: () => startTrial(db, here, TRIAL_ASKED, now),
  },
  'comfort/referral': { setReferralText: () => setReferralText(db, here, null) },
  'comfort/rides': {
    listRides: () => listRides(db, here, other.member, new Date()),
    ridersOfBike: () => ridersOfBike(db, here, other.bike, new Date(0)),
  },
  'comfort/stops': { stopsOf: async () => [...(await stopsOf(db, here, [other.member], new Date())).values()] },
  'pages/comfort/story': { storyOf: () => storyOf(db, here, other.member, { part: 'all', page: 0 }, now) },
  'comfort/trials': {
    listTrials: () => trials.listTrials(db, here, other.member, now),
    listRunningTrials: () => trials.listRunningTrials(db, here, now),
    runningTrials: () => trials.runningTrials(db, here, [other.member], now),
    runningOnBikes: () => trials.runningOnBikes(db, here, [other.bike], now),
  },
  'comfort/trialChanges': {
    lockMember: () => trialChanges.lockMember(db, here, other.member),
    memberOfTrial: () => trialChanges.memberOfTrial(db, here, other.trial),
    rateTrial: () => trialChanges.rateTrial(db, here, { id: id(), trialId: other.trial, rating: 9 }, now),
    endTrial: () => trialChanges.endTrial(db, here, { id: other.trial, outcome: 'keep' }, now),
  },
  'comfort/trialsOnFloor': {
    trialsOnFloor: async () => {
      const found = await trialsOnFloor(db, here, [other.member], [other.bike], now)
      return [found.of(other.member) ? SECRET : '', ...found.words(other.member, other.bike)]
    },
  },
  'pages/classes/today': { today: () => today(db, here, now) },
  'classes/rooms/rooms': {
    listRooms: () => rooms.listRooms(db, here),
    findRoom: () => rooms.findRoom(db, here, other.room),
    listPlaces: () => rooms.listPlaces(db, here),
    saveRoom: () => {
      const places = [{ bikeId: other.bike, xM: 3, yM: 3, headingDeg: 0 }]
      return rooms.saveRoom(db, here, { id: other.room, name: 'Taken', plan: PLAIN_ROOM, places }, now)
    },
    deleteRoom: () => rooms.deleteRoom(db, here, other.room),
  },
  'classes/notes': {
    listNotesOfMember: () => notes.listNotesOfMember(db, here, other.member),
    listNotesOfMembers: () => notes.listNotesOfMembers(db, here, [other.member], new Date(0)),
    listFlagsOfMember: () => notes.listFlagsOfMember(db, here, other.member, new Date(0)),
    listNotesOfClass: () => notes.listNotesOfClass(db, here, other.ofClass),
    findOnFloor: async () => {
      const there = { classId: other.ofClass, memberId: other.member, bikeId: other.bike }
      const found = await notes.findOnFloor(db, here, there)
      return found.ofClass || found.rider ? SECRET : null
    },
    changeNote: () => notes.changeNote(db, here, other.note, { held: true }, now),
    addNote: () =>
      notes.addNote(db, here, {
        id: other.note,
        memberId: 'member-01',
        bikeId: 'bike-1',
        region: 'feet',
        sign: 'x',
        side: 'left',
        createdAt: now,
      }),
    withdrawNote: () => notes.withdrawNote(db, here, other.note, now),
  },
  'pages/riders/members': {
    searchMembers: () => searchMembers(db, here, { typed: SECRET, withoutNumbers: false, page: 1 }),
  },
  'setups/latestNumbers': {
    latestNumbers: async () => [...(await latestNumbers(db, here, [other.member])).keys()],
  },
  'riders/members/members': {
    mergedInto: () => members.mergedInto(db, here, other.merged),
    findMembers: () => members.findMembers(db, here, SECRET, 10),
    findMember: () => members.findMember(db, here, other.member),
    addMember: () => members.addMember(db, here, { id: other.member, name: 'Somebody' }, now),
    renameMember: () => members.renameMember(db, here, other.member, { from: SECRET, to: 'Taken' }),
    findMembersByName: () => members.findMembersByName(db, here, SECRET),
    changeMember: () => {
      const record = { id: other.member, name: SECRET, number: null, email: null, statureMm: null }
      return members.changeMember(db, here, record, { ...record, name: 'Taken' })
    },
    membersNamed: async () => [...(await members.membersNamed(db, here, [SECRET])).values()].flat(),
  },
  'commands/useCases/mergeMembers': {
    previewMerge: () => merge.previewMerge(db, here, { from: other.member, into: 'member-01' }),
    mergeMembers: () => merge.mergeMembers(db, here, { from: other.member, into: 'member-01' }, now),
  },
  'files/sampleList': { sampleList: () => sampleList(db, here) },
  'files/exportMembers': {
    memberListStream: async () => new Response(await memberListStream(db, here)).text(),
  },
  'files/archiveExport': {
    archiveStream: () => new Response(archiveExport.archiveStream(db, here)).text(),
    archiveText: async () => {
      let text = ''
      for await (const piece of archiveExport.archiveText(db, here)) text += piece
      return text
    },
  },
  'files/archiveImport': {
    checkArchive: async () => archiveImport.checkArchive(db, here, await sent('{}')),
    importArchive: async () => archiveImport.importArchive(db, here, await sent('{}')),
  },
  'files/importMembers': {
    checkMembers: async () => importMembers.checkMembers(db, here, await sentList(), now, nothing, going),
    importMembers: async () => importMembers.importMembers(db, here, await sentList(), now, nothing, going),
  },
  'files/importPlan': { planFor: () => importPlan.planFor(db, here, now) },
  'files/uploads': {
    storeUpload: () => uploads.storeUpload(here, null, 0),
    findUpload: () => uploads.findUpload(here, id()),
    removeUpload: () => uploads.removeUpload(here, id()),
  },
  'riders/memberPage/links': {
    findLink: () => links.findLink(db, here, other.member, now),
    openLink: () => links.openLink(db, here, other.member, now),
    revokeLinks: () => links.revokeLinks(db, here, other.member, now),
  },
  'riders/memberPage/messages': {
    listMessages: () => messages.listMessages(db, here, other.member),
    handleMessage: () => messages.handleMessage(db, here, other.message, now),
    latestHomeMeasures: () => messages.latestHomeMeasures(db, here, other.member),
    listHomeMeasures: () => messages.listHomeMeasures(db, here, other.member),
  },
  'riders/members/words': {
    findByWords: () => words.findByWords(db, here, SECRET, 10),
    replaceWords: () => words.replaceWords(db, here, { id: other.member, name: 'Taken' }),
    addWords: () => words.addWords(db, here, []),
  },
  'setups/findWithNumbers': { findWithNumbers: () => findWithNumbers(db, here, 'kept', now) },
  'setups/register': {
    currentEntries: () => register.currentEntries(db, here, [other.member]),
    listEntries: () => register.listEntries(db, here, other.member),
    findEntry: () => register.findEntry(db, here, other.finished),
    restoreEntry: () => register.restoreEntry(db, here, { id: id(), entryId: other.finished }, now),
    recordEntry: () =>
      register.recordEntry(
        db,
        here,
        {
          id: id(),
          memberId: other.member,
          lineId: other.line,
          typeId: other.type,
          purpose: 'usual',
          source: 'imported',
          certainty: 'told',
          marks,
        },
        now,
      ),
  },
  'setups/proposals': {
    saveTranslation: () =>
      proposals.saveTranslation(db, here, { id: id(), entryId: other.finished, lineId: 'bracken' }, now),
    saveTapeNumbers: () =>
      proposals.saveTapeNumbers(
        db,
        here,
        { memberId: other.member, from: TAPED, parts: [{ id: id(), lineId: other.line }] },
        now,
      ),
    saveChange: () =>
      proposals.saveChange(
        db,
        here,
        { memberId: other.member, what: 'shoes', mm: 9, parts: [{ id: id(), entryId: other.finished }] },
        now,
      ),
  },
  'commands/takeEntry': {
    takeEntry: () =>
      Promise.all(ENTRIES.map((entry) => takeEntry(db, here, { ...entry, author: 'x', madeAtMs: 0 } as never, now))),
  },
  'riders/limits': {
    todayOf: () => limits.todayOf(db, here, now),
    listLimits: () => limits.listLimits(db, here, [other.member]),
    effectsOfLimits: () => limits.effectsOfLimits(db, here, [other.member], now),
    recordLimit: () => limits.recordLimit(db, here, { id: id(), memberId: other.member, limit: LIMIT }, now),
    endLimit: () => limits.endLimit(db, here, { id: other.limit, memberId: other.member }, now),
    reopenLimit: () => limits.reopenLimit(db, here, { id: other.limit, memberId: other.member }),
  },
  'studio/invitations': {
    listInvitations: () => invitations.listInvitations(db, here, now),
    invite: () => invitations.invite(db, here, { id: id(), role: 'desk', userId: there.userId }, now),
    revokeInvitation: () => invitations.revokeInvitation(db, here, other.invitation, now),
  },
  'pages/studio/people': { peoplePage: () => peoplePage(db, here, now) },
  'pages/studio/devices': { devicesPage: () => devicesPage(db, here, now) },
  'classes/rooms/tablets': {
    listTablets: () => tablets.listTablets(db, here),
    pairTablet: () => tablets.pairTablet(db, here, { ...TABLET, id: id(), tokenHash: 'ef'.repeat(32) }, now),
    endTablet: () => tablets.endTablet(db, here, other.tablet, now),
  },
  'pages/studio/operation': { operationPage: () => operationPage(db, here, now) },
  'pages/studio/firstHour': {
    firstHourPage: () => firstHour.firstHourPage(db, here),
    firstHourDone: () => firstHour.firstHourDone(db, here),
  },
  'comfort/programmes': {
    listProgrammes: () => programmes.listProgrammes(db, here, other.member, now),
    giveProgramme: () =>
      programmes.giveProgramme(db, here, { id: id(), memberId: other.member, ...EXERCISES_GIVEN }, now),
    endProgramme: () => programmes.endProgramme(db, here, { id: other.programme, memberId: other.member }, now),
    reopenProgramme: () => programmes.reopenProgramme(db, here, { id: other.programme, memberId: other.member }),
    resumeProgramme: () => programmes.resumeProgramme(db, here, { id: other.programme, memberId: other.member }, now),
    tickExercise: () => programmes.tickExercise(db, linkHere(), { id: id(), ...OWN_TICK }, now),
    untickExercise: () => programmes.untickExercise(db, linkHere(), OWN_TICK, now),
  },
  'pages/comfort/programmes': { riderProgrammes: () => riderProgrammes(db, here, other.member, [], now) },
  'setups/carriedBodies': {
    listRiderFiles: () => carriedBodies.listRiderFiles(db, here, other.member, now),
    carriedBodyOf: () => carriedBodies.carriedBodyOf(db, here, other.member, now),
    carriedWishOf: () => carriedBodies.carriedWishOf(db, here, other.member, now),
  },
  'studio/studioKeys': {
    publicKeyOf: () => studioKeys.publicKeyOf(db, here, now),
    signRiderFile: () => studioKeys.signRiderFile(db, here, UNSIGNED, now),
    listKnownStudios: () => studioKeys.listKnownStudios(db, here),
    isKnownKey: () => studioKeys.isKnownKey(db, here, OTHER_KEY),
    knowStudio: () => studioKeys.knowStudio(db, here, { key: OTHER_KEY, name: 'Known' }, now),
    forgetStudio: () => studioKeys.forgetStudio(db, here, OTHER_KEY),
  },
  'pages/studio/files': { filesPage: () => filesPage(db, here, now) },
  'files/riderFile/make': {
    riderFileContents: () => riderFileContents(db, here, other.member, now),
    makeRiderFile: () => makeRiderFile(db, here, other.member, { body: true, wish: true, limits: [other.limit] }, now),
  },
  'files/riderFile/read': {
    readRiderFile: () => readRiderFile(db, here, { text: JSON.stringify(TOLD_FILE), memberId: other.member }, now),
  },
  'files/riderFile/bring': { bringRiderFile: () => bringRiderFile(db, here, { id: id(), ...BROUGHT }, now) },
  'files/riderFile/response': {
    riderFileResponse: async () => {
      const of = { studioId: here.studioId, memberId: other.member }
      return (await riderFileResponse(db, of, { file: 'set-up.json', asked: new URLSearchParams() }, now)).text()
    },
  },
  'riders/plans': {
    listPlans: () => plans.listPlans(db, here, [other.member]),
    recordPlan: () => plans.recordPlan(db, here, { id: id(), memberId: other.member, plan: PLAN }, now),
    tickPlan: () => plans.tickPlan(db, here, { id: other.plan, memberId: other.member }, now),
    endPlan: () => plans.endPlan(db, here, { id: other.plan, memberId: other.member }, now),
    reopenPlan: () => plans.reopenPlan(db, here, { id: other.plan, memberId: other.member }),
  },
  'pages/riders/plans': {
    plansOf: () => plansOf(db, here, [other.member], now),
    duePlans: async () => [...(await duePlans(db, here, [other.member], now)).keys()],
  },
  'setups/evidence': {
    listEvidence: () => evidence.listEvidence(db, here, other.setup),
    appendEvidence: () => evidence.appendEvidence(db, here, other.setup, { id: id(), row }, now),
    withdrawEvidence: () => evidence.withdrawEvidence(db, here, other.setup, other.row, now),
    finishSetup: () => evidence.finishSetup(db, here, other.setup, { id: id(), marks }, now),
  },
  'setups/setups': {
    startSetup: () => setups.startSetup(db, here, { id: id(), memberId: other.member, bikeId: other.bike }, now),
    continueSetup: () => setups.continueSetup(db, here, { setupId: other.setup, rows: [] }, now),
    findSetup: () => setups.findSetup(db, here, other.setup),
    listFinishedSetups: () => setups.listFinishedSetups(db, here, other.member),
    listOpenSetups: () => setups.listOpenSetups(db, here, other.member),
    listHistory: () => setups.listHistory(db, here, other.member, now),
    findPreviousNumbers: () =>
      setups.findPreviousNumbers(db, here, { memberId: other.member, type: HOLES_BIKE, lineId: other.line }),
  },
  'setups/setupSchool': {
    findSetupSchool: () => setupSchools.findSetupSchool(db, here, other.setup),
    changeSetupSchool: () =>
      setupSchools.changeSetupSchool(db, here, { id: id(), setupId: other.setup, school: { foot: 'level' } }, now),
  },
  'setups/learned': {
    listCheckedSetups: () => learned.listCheckedSetups(db, here),
    listRecentSetups: () => learned.listRecentSetups(db, here),
    suggestionRecordOf: async () => learned.suggestionRecordOf(db, here, await studios.getStudio(db, here), null),
    learnedPrior: async () => learned.learnedPrior(db, here, await studios.getStudio(db, here)),
    observerErrorOf: () => learned.observerErrorOf(db, here),
    standingRows: () => learned.standingRows(db, here, [other.setup]),
    latestSaved: () => learned.latestSaved(db, here),
  },
  'setups/riderResiduals': {
    machineChecks: async () => residuals.machineChecks(db, here, await bikes.listBikes(db, here), now),
    riderResiduals: async () => residuals.riderResiduals(db, here, await bikes.listBikes(db, here), now),
    takeRiderResidual: () => residuals.takeRiderResidual(db, here, ids(), now),
  },
  'studio/people': {
    listColleagues: () => people.listColleagues(db, here),
    listPeople: () => people.listPeople(db, here),
    listTeachers: () => people.listTeachers(db, here),
    listEverybody: () => people.listEverybody(db, here),
    changeRole: () => people.changeRole(db, here, { userId: there.userId, role: 'desk' }, now),
    endAccess: () => people.endAccess(db, here, there.userId, now),
  },
  'studio/studio': {
    getStudio: () => studios.getStudio(db, here),
    changeStudio: () => studios.changeStudio(db, here, { school: {}, costs: {}, learns: true }),
    changeStudioFacts: async () => {
      const { name, place, timeZone } = await studios.getStudio(db, here)
      return studios.changeStudioFacts(db, here, { name, place, timeZone })
    },
    allowRidersAlone: () => studios.allowRidersAlone(db, here, true),
  },
}

const TAPED = {
  lengths: { saddleHeightMm: 700, setbackMm: 60, reachMm: 690, stackMm: 620 },
  crankMm: 172,
  noseAheadMm: 150,
} as const

/** A saddle of the other studio tilted for its member. */
const OTHER_TRIAL = {
  id: other.trial,
  memberId: other.member,
  complaintId: other.complaint,
  cause: 'noseDown',
  change: { axis: 'tilt', direction: 'up', deg: 1, large: false },
  said: SECRET,
  because: [],
  expects: [],
  weeks: 1,
  ratingBefore: 4,
  reason: null,
  get bikeId() {
    return other.bike
  },
  entry: null,
} as const
const TRIAL_ASKED = {
  id: id(),
  memberId: other.member,
  complaintId: other.complaint,
  shown: { axis: 'tilt', deg: 1 },
  weeks: 1,
  ratingBefore: 4,
  reason: 'x',
} as const
const nothing = () => undefined
const BOOKED = { state: 'booked', comesMinBefore: 10 } as const
const OTHER_CLASS = { title: 'Here', startsAt: now, endsAt: now, roomId: null }
const ENTRY = {
  uid: 'u',
  occurrence: 'o',
  title: 'Here',
  place: '',
  startsAt: now,
  endsAt: now,
  cancelled: false,
}
const going = new AbortController().signal
async function sent(text: string) {
  const kept = await uploads.storeUpload(here, new Blob([text]).stream() as ReadableStream<Uint8Array>, null)
  if (kept.outcome !== 'kept') throw new Error(kept.why)
  return { upload: kept.upload, progress: nothing, signal: going }
}
/** A list that names the other studio's member by their id. */
async function sentList() {
  const { upload } = await sent(`member id,name\n${other.member},Taken\n`)
  return { upload, format: { encoding: 'utf-8', delimiter: ',' }, columns: ['memberId', 'name'] as const }
}

const ENTRIES = [
  { op: 'appendEvidence', id: id(), setupId: other.setup, row },
  { op: 'withdrawEvidence', id: id(), setupId: other.setup, rowId: other.row },
  { op: 'finishSetup', id: id(), setupId: other.setup, marks },
  { op: 'addNote', id: id(), memberId: other.member, bikeId: 'bike-1', sign: 'kneesOut', side: 'left' },
  { op: 'withdrawNote', id: id(), noteId: other.note },
  { op: 'changeNote', id: id(), noteId: other.note, change: { held: true } },
  { op: 'addLook', id: id(), classId: other.ofClass, memberId: 'member-01', bikeId: 'bike-1' },
  { op: 'addRoomCue', id: id(), classId: other.ofClass, sign: 'kneesOut', cue: 'x', concerned: [] },
  { op: 'moveMark', id: id(), memberId: other.member, bikeId: 'bike-1', ...MOVE },
  { op: 'undoMove', id: id(), moveId: other.moved },
] as const

/** What takes no scope, and why it needs none. */
const WITHOUT_SCOPE: Readonly<Record<string, string>> = {
  atOrAfter: 'the later of two times',
  checkName: 'text',
  isIntact: 'a file',
  printOf: 'text',
  codeTextOf: 'text',
  parseRiderFile: 'text',
  checkFile: 'text, against the studio’s own keys',
  proposalsOf: 'of a file its caller checked',
  adviceLimits: 'chooses among what it is handed',
  fleetAccommodation: 'computes what it is handed',
  typesInUse: 'chooses among what it is handed',
  readClassFields: 'a form',
  readComplaint: 'a form',
  availableBikes: 'chooses among bikes it is handed',
  addOwnComplaint: 'of whoever such an address opened',
  asComplaint: 'renames what it is handed',
  isReferred: 'looks at what it is handed',
  insertTrial: 'within a transaction that has found the complaint',
  newEntryOf: 'renames what it is handed',
  scopeOf: 'of whoever such an address opened',
  byDisplayPriority: 'orders what it is handed',
  readClassList: 'text',
  sourceKey: 'text',
  replaceAssignments: 'within a transaction that has locked the class',
  numbersAt: 'chooses among what it is handed',
  floorOf: 'places what it is handed',
  areDoorsOpen: 'compares times',
  computePlan: 'computes what it is handed',
  sheetRow: 'a seat',
  readPlacesUndo: 'reads what it is handed',
  subscribeToClass: 'of a class its caller found',
  publishClassEvent: 'of a class its caller found',
  momentAt: 'a date',
  dayAfter: 'a date',
  weekOf: 'a date',
  formatDay: 'a date',
  recomputeMachinesOf: 'within a transaction that has locked the studio’s types',
  normalizeName: 'text',
  findCode: 'opens by what is printed on a machine, whose studio follows from it',
  openCode: 'opens by what is printed on a machine, whose studio follows from it',
  normalizeCode: 'text',
  printedCode: 'text',
  mayLeave: 'counts what a device sends',
  leaveAloneSetup: 'of the machine whose code was opened',
  machineCodePage: 'of the machine whose code was opened',
  ownBikePage: 'of whoever such an address opened',
  recommendationOf: 'of numbers its caller found',
  pruneAloneSetups: 'walks every studio',
  ownerOf: 'opens by what stands in a private address, whose studio follows from it',
  settleOpenFloors: 'at an upgrade, of every studio',
  onFile: 'hands on what its work answers',
  encodingOf: 'bytes',
  writeFromPage: 'of whoever such an address opened',
  addMessage: 'of whoever such an address opened',
  memberPageData: 'of whoever such an address opened',
  openFrom: 'opens by what stands in a private address, whose studio follows from it',
  addressOf: 'text',
  qrSvg: 'text',
  qrSquares: 'text',
  orderOf: 'a table',
  sectionsAfter: 'a number',
  leaveForMerged: 'asks mergedInto and leads on',
  archiveSchema: 'tables',
  readArchive: 'a file its caller found',
  NotReadable: 'an error',
  previewList: 'a file its caller found',
  columnsFrom: 'words',
  recognizeList: 'a file its caller found',
  linesOf: 'a file its caller found',
  headOf: 'a file its caller found',
  bytesOf: 'a file its caller found',
  wordsOf: 'text',
  wordRows: 'text',
  validateRow: 'a row against a type',
  tapeRefusal: 'a reading against a type',
  readingRefusal: 'a reading against a type',
  validFieldsOf: 'a reading',
  observerOf: 'an error already worked out',
  nameMatches: 'a condition of a query, tied to the scope it takes',
  classPage: 'reads the user itself; its queries are walked',
  answers: 'says only that the database answers',
  findInvitation: 'by a token, signed out',
  acceptInvitation: 'by a token, signed out',
  isStartCode: 'a code',
  codeFingerprint: 'a code',
  beginStudio: 'before there is a studio',
  studioFactsIssue: 'a form',
  timeZones: 'of the world',
  signInPage: 'of the studio whose tablet asks',
  readAuthority: 'of the installation',
  certificateDaysLeft: 'of the installation',
  backupStatus: 'of the installation',
  accessQuery: 'an address',
  columnKind: 'a name of a column',
  replayErasures: 'at the start, of every studio',
  listErasures: 'at the start, of every studio',
  settleErasures: 'at the start, of every studio',
  rememberErasures: 'of the installation',
  rememberedErasures: 'of the installation',
  sealStored: 'at the start, of every studio',
  applyRetentions: 'walks every studio',
  keepRetention: 'walks every studio',
  memberPdf: 'draws what it is handed',
  linkHash: 'a row it is handed',
  keepAccessLog: 'of the installation',
  settleSoon: 'calls settleAccessLog',
  seen: 'calls recordSeen',
  recordSeen: 'adds a row to the log of whoever sees',
  recordGuesses: 'adds a row to the log of the account’s own studio',
  noteEnd: 'of the installation',
  notedEnds: 'of the installation',
}

/** Every module of the server that reads or writes a studio's rows. */
const FOLDERS = [
  'bikes',
  'classes',
  'classes/rooms',
  'comfort',
  'commands/useCases',
  'files',
  'pages/bikes',
  'pages/classes',
  'pages/comfort',
  'pages/riders',
  'pages/setups',
  'pages/studio',
  'privacy',
  'privacy/accessLog',
  'riders',
  'riders/memberPage',
  'riders/members',
  'setups',

  'studio',
]
const modules = FOLDERS.flatMap((folder) =>
  readdirSync(join(process.cwd(), 'server', folder))
    .filter((file) => /\.ts$/.test(file) && !/\.test\.ts$/.test(file))
    .map((file) => `${folder}/${file.replace(/\.ts$/, '')}`),
)

test.each(modules)('every function of server/%s is walked, or needs no scope', (name) => {
  // eslint-disable-next-line @typescript-eslint/no-require-imports -- whatever the module exports, by its name
  const exported = require(join(process.cwd(), 'server', name)) as Record<string, unknown>
  const functions = Object.keys(exported).filter((key) => typeof exported[key] === 'function')
  expect(functions.filter((key) => !(key in (QUERIES[name] ?? {})) && !(key in WITHOUT_SCOPE))).toEqual([])
})

/** As JSON, with what is in maps and sets. */
const asText = (value: unknown): string =>
  JSON.stringify(value, (_, one: unknown) => (one instanceof Map || one instanceof Set ? [...one] : one)) ?? ''

/** Every row of each studio at the end of the last call that was to change nothing: the next one begins with them. */
const lastRows = new Map<string, string>()
/** The call's answer; every row of the studio is as before it. */
async function changesNothing<T>(studioId: string, call: () => T): Promise<Awaited<T>> {
  const before = lastRows.get(studioId) ?? (await everyRowOf(studioId))
  const answer = await call()
  const after = await everyRowOf(studioId)
  lastRows.set(studioId, after)
  expect(after).toBe(before)
  return answer
}

/** Makes a call that must neither tell of the other studio nor touch it. */
async function seesNothing(call: Call): Promise<Answer> {
  const answer = await changesNothing(there.studioId, call)
  expect(asText(answer)).not.toContain(SECRET)
  return answer as Answer
}

describe('what is another studio’s does not exist', () => {
  const calls = Object.entries(QUERIES).flatMap(([module, walk]) =>
    Object.entries(walk).map(([name, call]) => [`${module} ${name}`, call] as const),
  )
  test.each(calls)('for the query %s', async (_, call) => void (await seesNothing(call)))

  test('and the walk would notice: the same calls by the other studio’s own do return it', async () => {
    expect(JSON.stringify(await members.findMember(db, there, other.member))).toContain(SECRET)
    const before = await everyRowOf(there.studioId)
    await members.renameMember(db, there, other.member, { from: SECRET, to: `${SECRET} Too` })
    expect(await everyRowOf(there.studioId)).not.toBe(before)
    await db.update(member).set({ name: SECRET }).where(eq(member.id, other.member))
    lastRows.clear()
  })
})

const reading = { kind: 'saddleLine', mm: 1, afterClosing: true } as const
const INPUTS: Record<string, () => Readonly<{ input: unknown; id?: string }>> = {
  'alone.allow': () => ({ input: { allowed: true } }),
  'alone.look': () => ({ input: { aloneId: other.alone, memberId: 'member-01' } }),
  'alone.newCode': () => ({ input: { bikeId: other.bike } }),
  'alone.putAside': () => ({ input: { aloneId: other.alone, aside: true } }),
  'bikes.saveType': () => ({ input: { baseId: other.type, document: { ...document } }, id: other.type }),
  'bikes.exportTypes': () => ({ input: {} }),
  'bikes.importTypes': () => ({ input: { text: 'no file of types' } }),
  'bikes.addMachines': () => ({ input: { lineId: other.line, typed: '802' } }),
  'bikes.removeMachine': () => ({ input: { bikeId: other.bike } }),
  'bikes.addTapeReading': () => ({ input: { typeId: other.type, row: tape }, id: id() }),
  'bikes.replaceTapeReadings': () => ({
    input: { typeId: other.type, replaced: [{ id: other.tape, newId: id(), row: tape }] },
  }),
  'bikes.withdrawTapeReading': () => ({ input: { readingId: other.tape } }),
  'bikes.finishCalibration': () => ({ input: { typeId: other.type }, id: id() }),
  'bikes.compareTapeReading': () => ({ input: { bikeId: other.bike, row: tape, shown: 'metric' } }),
  'bikes.addBikeReading': () => ({ input: { bikeId: other.bike, reading }, id: id() }),
  'bikes.takeRiderResidual': () => ({ input: { bikeId: other.bike }, id: id() }),
  'bikes.withdrawBikeReading': () => ({ input: { bikeId: other.bike, readingId: other.reading } }),
  'bikes.saveSaddle': () => ({ input: { saddleId: other.saddle, model: { ...SADDLE, name: 'Stolen' } } }),
  'bikes.fitSaddle': () => ({ input: { bikeId: other.bike, saddleId: other.saddle }, id: id() }),
  'bikes.recordCare': () => ({ input: { bikeId: other.bike, ...CARE }, id: id() }),
  'bikes.withdrawCare': () => ({ input: { bikeId: other.bike, careId: other.care } }),
  'bikes.setCareIntervals': () => ({ input: { bikeId: other.bike, intervals: { pins: { days: 9 } } } }),
  'bikes.recordInspection': () => ({ input: { bikeId: other.bike, wrong: [] }, id: id() }),
  'bikes.resolveFault': () => ({ input: { bikeId: other.bike, faultId: other.fault } }),
  'places.assignBike': () => ({ input: { classId: other.ofClass, bikeId: other.bike, memberId: null }, id: id() }),
  'places.placeEverybody': () => ({ input: { classId: other.ofClass } }),
  'places.undoPlaces': () => ({
    input: { classId: other.ofClass, undo: { after: [], seats: [], riders: [], added: [] } },
  }),
  'places.addRider': () => ({ input: { classId: other.ofClass, memberId: other.member, how: 'here' } }),
  'places.changeRider': () => ({
    input: { classId: other.ofClass, memberId: other.member, change: { state: 'here' } },
  }),
  'places.swapRiders': () => ({ input: { classId: other.ofClass, first: other.member, second: 'member-01' } }),
  'places.leaveToWarmUp': () => ({ input: { classId: other.ofClass, memberIds: [other.member], warmUp: true } }),
  'classes.changeHands': () => ({ input: { classId: other.ofClass, hands: 2, doorsMin: 30 } }),
  'classes.saveBlocks': () => ({ input: { classId: other.ofClass, blocks: [] } }),
  'classes.changeCue': () => ({ input: { sign: 'kneesOut', cue: null } }),
  'classes.addClass': () => ({
    input: {
      title: 'Taken',
      day: '2033-07-08',
      time: '18:00',
      minutes: 45,
      roomId: other.room,
      teacherId: null,
      weeks: 2,
    },
    id: other.ofClass,
  }),
  'classes.cancelClass': () => ({ input: { classId: other.ofClass, cancelled: true } }),
  'classes.classForEdit': () => ({ input: { classId: other.ofClass } }),
  'classes.changeClass': () => ({ input: { classId: other.ofClass, from: FACTS, to: { ...FACTS, title: 'Taken' } } }),
  'classes.repeatClass': () => ({ input: { classId: other.ofClass, weeks: 2 }, id: id() }),
  'classes.followUpLine': () => ({
    input: {
      classId: other.ofClass,
      memberId: other.member,
      kind: 'noted',
      state: 'done',
      handedTo: null,
      said: 'Taken',
    },
  }),
  'bikes.renumberMachine': () => ({ input: { bikeId: other.bike, number: 803 } }),
  'bikes.retireMachine': () => ({ input: { bikeId: other.bike } }),
  'bikes.returnMachine': () => ({ input: { bikeId: other.bike } }),
  'bikes.deleteType': () => ({ input: { lineId: other.line } }),
  'members.changeMember': () => ({
    input: {
      from: { id: other.member, name: SECRET, number: null, email: null, statureMm: null },
      typed: { name: 'Taken', number: '', email: '' },
    },
  }),
  'members.previewMerge': () => ({ input: { from: other.member, into: 'member-01' } }),
  'members.mergeMembers': () => ({ input: { from: 'member-01', into: other.member } }),
  'classes.readTimetable': () => ({ input: { text: 'day,start,class\n' } }),
  'classes.readPlan': () => ({ input: { text: 'name,minutes,turns\nUp,5,90\n' } }),
  'rooms.saveRoom': () => ({ input: { roomId: other.room, name: 'Taken', plan: PLAIN_ROOM, places: [] } }),
  'rooms.removeRoom': () => ({ input: { roomId: other.room } }),
  'members.addMember': () => ({ input: { typed: 'Somebody Here', anyway: true }, id: other.member }),
  'members.renameMember': () => ({ input: { memberId: other.member, from: SECRET, typed: 'Taken' } }),
  'members.recordLimit': () => ({ input: { memberId: other.member, limit: LIMIT, consent: true }, id: id() }),
  'members.endLimit': () => ({ input: { memberId: other.member, limitId: other.limit } }),
  'members.reopenLimit': () => ({ input: { memberId: other.member, limitId: other.limit } }),
  'comfort.giveProgramme': () => ({ input: { memberId: other.member, ...EXERCISES_GIVEN }, id: id() }),
  'comfort.endProgramme': () => ({ input: { memberId: other.member, programmeId: other.programme } }),
  'comfort.reopenProgramme': () => ({ input: { memberId: other.member, programmeId: other.programme } }),
  'comfort.resumeProgramme': () => ({ input: { memberId: other.member, programmeId: other.programme } }),
  'riderFiles.readRiderFile': () => ({ input: { text: BROUGHT.text, memberId: other.member } }),
  'riderFiles.takeRiderFile': () => ({ input: BROUGHT, id: id() }),
  'riderFiles.knowStudio': () => ({ input: { key: OTHER_KEY, studioName: 'Known' } }),
  'riderFiles.forgetStudio': () => ({ input: { key: OTHER_KEY } }),
  'members.recordPlan': () => ({ input: { memberId: other.member, plan: PLAN }, id: id() }),
  'members.tickPlan': () => ({ input: { memberId: other.member, planId: other.plan } }),
  'members.endPlan': () => ({ input: { memberId: other.member, planId: other.plan } }),
  'members.reopenPlan': () => ({ input: { memberId: other.member, planId: other.plan } }),
  'members.eraseMember': () => ({ input: { memberId: other.member, name: SECRET } }),
  'people.makeKey': () => ({ input: { program: 'Taken', scope: 'desk', keyHash: other.keyHash }, id: other.key }),
  'people.pairTablet': () => ({ input: { name: 'Taken', roomId: null, idleMinutes: 5, tokenHash: 'cd'.repeat(32) } }),
  'people.endTablet': () => ({ input: { tabletId: other.tablet } }),
  'people.revokeKey': () => ({ input: { keyId: other.key } }),
  'register.confirmNumbers': () => ({ input: { entryId: other.moved } }),
  'privacy.verifyLog': () => ({ input: {} }),
  'privacy.saveConsentWording': () => ({ input: { wording: DEFAULT_CONSENT_WORDING } }),
  'members.giveConsent': () => ({ input: { memberId: other.member, way: 'spoken' } }),
  'members.withdrawConsent': () => ({ input: { memberId: other.member } }),
  'privacy.previewRetention': () => ({ input: { retention: KEEP_ALL } }),
  'privacy.saveRetention': () => ({ input: { retention: KEEP_ALL } }),
  'people.invite': () => ({ input: { role: 'desk', userId: there.userId }, id: id() }),
  'people.revokeInvitation': () => ({ input: { invitationId: other.invitation } }),
  'people.changeRole': () => ({ input: { userId: there.userId, role: 'desk' } }),
  'people.endAccess': () => ({ input: { userId: there.userId } }),
  'people.requireSecondFactor': () => ({ input: { roles: [] } }),
  'people.endOwnSession': () => ({ input: { sessionId: other.session } }),
  'studio.saveStudioFacts': () => ({ input: { name: '', place: '', timeZone: 'UTC' } }),
  'members.findMembers': () => ({ input: { typed: SECRET } }),
  'register.restoreNumbers': () => ({ input: { entryId: other.finished }, id: id() }),
  'register.saveForType': () => ({ input: { entryId: other.finished, lineId: 'bracken' }, id: id() }),
  'register.saveFromTape': () => ({
    input: { memberId: other.member, from: TAPED, parts: [{ id: id(), lineId: 'bracken' }] },
  }),
  'register.saveAfterChange': () => ({
    input: { memberId: other.member, what: 'shoes', mm: 9, parts: [{ id: id(), entryId: other.finished }] },
  }),
  'register.openOwnPage': () => ({ input: { memberId: other.member } }),
  'register.revokeOwnPage': () => ({ input: { memberId: other.member } }),
  'register.handleMessage': () => ({ input: { messageId: other.message } }),
  'register.earlierEntries': () => ({ input: { memberId: other.member, before: other.finished } }),
  'register.movableMarks': () => ({ input: { memberId: other.member, bikeId: other.bike } }),
  'register.outlookOfMove': () => ({
    input: { memberId: other.member, bikeId: other.bike, axis: 'seatHeight', to: ['8'] },
  }),
  'setups.startSetup': () => ({ input: { memberId: other.member, bikeId: other.bike } }),
  'setups.changeSchool': () => ({ input: { setupId: other.setup, school: { foot: 'level' } }, id: id() }),
  'studio.saveStudio': () => ({ input: { settings: { school: {}, costs: {}, learns: true } } }),
  'setups.historyOf': () => ({ input: { memberId: other.member } }),
  'setups.continueSetup': () => ({ input: { setupId: other.setup, rows: [] } }),
  'comfort.saveComplaint': () => ({
    input: { memberId: other.member, said: BOTHER as never, ...FROM_NOTHING },
    id: id(),
  }),
  'comfort.recordReferral': () => ({
    input: { memberId: other.member, complaintId: other.complaint, handedTo: 'nobody' },
  }),
  'comfort.endComplaint': () => ({ input: { memberId: other.member, complaintId: other.complaint } }),
  'comfort.reopenComplaint': () => ({ input: { memberId: other.member, complaintId: other.complaint } }),
  'comfort.recordSide': () => ({ input: { memberId: other.member, complaintId: other.complaint, side: 'left' } }),
  'comfort.startTrial': () => ({ input: TRIAL_INPUT, id: id() }),
  'comfort.rate': () => ({ input: { trialId: other.trial, rating: 1 }, id: id() }),
  'comfort.finishTrial': () => ({ input: { trialId: other.trial, outcome: 'undo', leaveNumbers: true } }),
  'comfort.saveReferral': () => ({ input: { words: '' } }),
  'classes.importTimetable': () => ({ input: { text: 'day,start,class\n' } }),
  'places.previewPlaces': () => ({ input: { classId: other.ofClass } }),
}
const FACTS = {
  title: SECRET,
  day: '2026-07-08',
  time: '11:10',
  minutes: 45,
  roomId: null,
  teacherId: null,
}
const { id: _, ...TRIAL_INPUT } = TRIAL_ASKED
const BOTHER = { what: 'feet', strength: 3 }
const FROM_NOTHING = { bikeId: null, noteId: null }
for (const { op, id: entryId, ...input } of ENTRIES) {
  const { name } = Object.values(COMMANDS).find(({ offline }) => offline === op)!
  INPUTS[name] = () => ({ input, id: entryId })
}
/** Commands of a member's own page, by the page of this studio's member, about records of the other studio. */
const OWN_INPUTS: Readonly<Record<string, unknown>> = {
  'ownPage.agreeToNotes': {},
  'ownPage.withdrawConsent': {},
  'ownPage.sendFelt': { felt: { comfort: 3, place: 'knees', line: '' } },
  'ownPage.requestRecheck': { line: '' },
  'ownPage.sendHome': { home: { evidence: [{ kind: 'stature', mm: 1700 }] } },
  'ownPage.sendComplaint': { said: BOTHER },
  'ownPage.rateOwnTrial': { trialId: other.trial, rating: 1 },
  'ownPage.tickExercise': OWN_TICK,
  'ownPage.untickExercise': OWN_TICK,
}

/** Commands at a machine's code, by a code of this studio. */
const CODE_INPUTS: Readonly<Record<string, (seatHeight: string) => unknown>> = {
  'alone.leave': (seatHeight) => {
    const rows = [
      { kind: 'rider', experience: 'new' },
      { kind: 'set', at: { seatHeight } },
    ]
    return { name: 'Somebody', device: id(), rows, agrees: true }
  },
}

/** What each answers about records of the other studio, or where it is about none. */
const OUTCOMES: Readonly<Record<string, string>> = {
  'bikes.addBikeReading': 'noSuchBike',
  'bikes.addMachines': 'noSuchType',
  'bikes.addTapeReading': 'noSuchType',
  'bikes.compareTapeReading': 'noSuchBike',
  'bikes.deleteType': 'noSuchType',
  'bikes.exportTypes': 'found',
  'bikes.finishCalibration': 'noSuchType',
  'bikes.importTypes': 'fileIssues',
  'bikes.saveSaddle': 'noSuchSaddle',
  'bikes.fitSaddle': 'noSuchSaddle',
  'bikes.recordCare': 'noSuchBike',
  'bikes.withdrawCare': 'kept',
  'bikes.setCareIntervals': 'noSuchBike',
  'bikes.recordInspection': 'noSuchBike',
  'bikes.removeMachine': 'hasRecords',
  'bikes.renumberMachine': 'noSuchBike',
  'bikes.replaceTapeReadings': 'noSuchType',
  'bikes.resolveFault': 'kept',
  'bikes.retireMachine': 'noSuchBike',
  'bikes.returnMachine': 'noSuchBike',
  'alone.allow': 'kept',
  'alone.look': 'lookedAtAlready',
  'alone.newCode': 'noSuchBike',
  'alone.putAside': 'kept',
  'alone.leave': 'kept',
  'bikes.saveType': 'idTaken',
  'bikes.takeRiderResidual': 'noSuchBike',
  'bikes.withdrawBikeReading': 'kept',
  'bikes.withdrawTapeReading': 'kept',
  'classes.addClass': 'noSuchRoom',
  'classes.cancelClass': 'noSuchClass',
  'classes.changeClass': 'noSuchClass',
  'classes.changeCue': 'kept',
  'classes.changeHands': 'noSuchClass',
  'classes.classForEdit': 'noSuchClass',
  'classes.followUpLine': 'noSuchClass',
  'classes.importTimetable': 'kept',
  'classes.readPlan': 'found',
  'classes.readTimetable': 'found',
  'classes.repeatClass': 'noSuchClass',
  'classes.saveBlocks': 'noSuchClass',
  'comfort.endComplaint': 'noSuchMember',
  'comfort.finishTrial': 'noSuchMember',
  'comfort.saveComplaint': 'noSuchMember',
  'comfort.saveReferral': 'kept',
  'comfort.rate': 'noSuchMember',
  'comfort.recordReferral': 'noSuchMember',
  'comfort.reopenComplaint': 'kept',
  'comfort.recordSide': 'noSuchMember',
  'comfort.startTrial': 'noSuchMember',
  'members.recordLimit': 'noSuchMember',
  'members.endLimit': 'kept',
  'members.reopenLimit': 'kept',
  'comfort.giveProgramme': 'noSuchMember',
  'comfort.endProgramme': 'kept',
  'comfort.reopenProgramme': 'kept',
  'comfort.resumeProgramme': 'kept',
  'riderFiles.readRiderFile': 'found',
  'riderFiles.takeRiderFile': 'fileChanged',
  'riderFiles.knowStudio': 'kept',
  'riderFiles.forgetStudio': 'kept',
  'members.recordPlan': 'noSuchMember',
  'members.tickPlan': 'kept',
  'members.endPlan': 'kept',
  'members.reopenPlan': 'kept',
  'members.eraseMember': 'noSuchMember',
  'ownPage.agreeToNotes': 'kept',
  'ownPage.withdrawConsent': 'kept',
  'people.makeKey': 'idTaken',
  'people.pairTablet': 'idTaken',
  'people.endTablet': 'kept',
  'people.revokeKey': 'kept',
  'register.confirmNumbers': 'noSuchNumbers',
  'privacy.verifyLog': 'found',
  'privacy.saveConsentWording': 'kept',
  'members.giveConsent': 'noSuchMember',
  'members.withdrawConsent': 'kept',
  'privacy.previewRetention': 'found',
  'privacy.saveRetention': 'kept',
  'people.invite': 'noSuchPerson',
  'people.revokeInvitation': 'kept',
  'people.changeRole': 'noSuchPerson',
  'people.endAccess': 'noSuchPerson',
  'people.endOwnSession': 'kept',
  'people.requireSecondFactor': 'kept',
  'studio.saveStudioFacts': 'noStudioName',
  'members.addMember': 'malformed',
  'members.changeMember': 'noSuchMember',
  'members.findMembers': 'found',
  'members.mergeMembers': 'noSuchMember',
  'members.previewMerge': 'noSuchMember',
  'members.renameMember': 'renamedMeanwhile',
  'notes.addLook': 'noClass',
  'notes.addNote': 'noNote',
  'notes.addRoomCue': 'noClass',
  'notes.changeNote': 'kept',
  'notes.withdrawNote': 'kept',
  'ownPage.requestRecheck': 'kept',
  'ownPage.rateOwnTrial': 'unreadable',
  'ownPage.tickExercise': 'programmeOver',
  'ownPage.untickExercise': 'programmeOver',
  'ownPage.sendComplaint': 'kept',
  'ownPage.sendFelt': 'kept',
  'ownPage.sendHome': 'kept',
  'places.addRider': 'noSuchClass',
  'places.assignBike': 'noSuchClass',
  'places.changeRider': 'noSuchClass',
  'places.leaveToWarmUp': 'noSuchClass',
  'places.placeEverybody': 'noSuchClass',
  'places.previewPlaces': 'noSuchClass',
  'places.swapRiders': 'noSuchClass',
  'places.undoPlaces': 'noSuchClass',
  'register.earlierEntries': 'found',
  'register.moveMark': 'noNote',
  'register.movableMarks': 'noNumbersToMove',
  'register.outlookOfMove': 'found',
  'register.undoMove': 'kept',
  'register.handleMessage': 'kept',
  'register.saveAfterChange': 'numbersChanged',
  'register.saveForType': 'noSuchNumbers',
  'register.saveFromTape': 'noSuchNumbers',
  'register.openOwnPage': 'noSuchMember',
  'register.restoreNumbers': 'noSuchNumbers',
  'register.revokeOwnPage': 'kept',
  'rooms.removeRoom': 'noSuchRoom',
  'rooms.saveRoom': 'noSuchBike',
  'setups.appendEvidence': 'noSetup',
  'setups.changeSchool': 'setupEnded',
  'setups.continueSetup': 'cannotContinue',
  'setups.finishSetup': 'noSetup',
  'setups.historyOf': 'found',
  'setups.startSetup': 'bikeGone',
  'setups.withdrawEvidence': 'noSetup',
  'studio.saveStudio': 'kept',
}

test('every command and every query is walked', () => {
  const names = [COMMANDS, COMMAND_QUERIES].flatMap((all) => Object.keys(all))
  expect(Object.keys(INPUTS).sort()).toEqual(names.sort())
  expect(Object.keys(OWN_INPUTS).sort()).toEqual(Object.keys(OWN_COMMANDS).sort())
  expect(Object.keys(CODE_INPUTS).sort()).toEqual(Object.keys(CODE_COMMANDS).sort())
})

const as = (role: Role) => ({ ...here, role, name: 'Ines Harrow' })

type Answer = Readonly<{ outcome: string; code?: string; say?: string }>
const isQuery = (name: string) => name in COMMAND_QUERIES
const permissionOf = (name: string): Permission => (COMMANDS[name] ?? COMMAND_QUERIES[name]).permission
/** Sends a command or query through the door of the interface. */
async function sendByName(name: string): Promise<Answer> {
  const { input, id: own } = INPUTS[name]()
  return (await (isQuery(name) ? sendQuery(name, input) : send(name, input, own ?? id()))) as Answer
}
/** And through the door of programs. */
const post = (name: string, sent: object) =>
  postCommand(
    new Request('http://127.0.0.1/', {
      method: 'POST',
      headers: { 'content-type': 'application/json', host: '127.0.0.1' },
      body: JSON.stringify(sent),
    }),
    { params: Promise.resolve({ name }) },
  )

describe('commands and queries', () => {
  test.each(Object.keys(INPUTS))('%s finds and changes nothing of another studio', async (name) => {
    person = as('manager')
    const answer = await seesNothing(() => sendByName(name))
    expect([name, answer.code ?? answer.outcome]).toEqual([name, OUTCOMES[name]])
  })

  test.each(Object.keys(INPUTS))('%s does nothing signed out', async (name) => {
    person = null
    await expect(sendByName(name)).rejects.toThrow('sent to sign in')
    expect((await post(name, { id: id(), ...INPUTS[name]() })).status).toBe(401)
  })

  const closed = ROLES.flatMap((role) =>
    Object.keys(INPUTS)
      .filter((name) => !can({ role }, permissionOf(name)))
      .map((name) => [role, name] as const),
  )
  test.each(closed)('a door is closed: %s, %s', async (role, name) => {
    person = as(role)
    await changesNothing(here.studioId, async () => {
      expect(await sendByName(name)).toMatchObject({
        outcome: 'refused',
        code: 'notAllowed',
        say: 'your role in this studio does not allow it',
      })
      if (!isQuery(name)) expect((await post(name, { ...INPUTS[name](), id: id() })).status).toBe(403)
    })
  })

  test.each(Object.entries(OWN_INPUTS))(
    '%s from a member’s page changes nothing of another studio',
    async (name, input) => {
      const memberId = id()
      await members.addMember(db, here, { id: memberId, name: 'Own Page' }, now)
      const link = (await links.openLink(db, here, memberId, new Date()))!
      const answer = await seesNothing(() => sendOwn(link.token, name, input, id()))
      expect([name, answer.code ?? answer.outcome]).toEqual([name, OUTCOMES[name]])
      expect(await sendOwn(link.token.replace(/.$/, '_'), name, input, id())).toMatchObject({ code: 'linkEnded' })
    },
  )
})

test.each(Object.entries(CODE_INPUTS))('%s at a code changes nothing of another studio', async (name, inputAt) => {
  const [bike] = await bikes.listBikes(db, here)
  const input = inputAt(positionsOf(bike.type.axes.seatHeight.scale)[0].label)
  const code = (await codes.codesOfBikes(db, here, [bike.id], now)).get(bike.id)!
  const answer = (await seesNothing(() => sendFromCode(code, name, input, id()))) as { code?: string; outcome: string }
  expect([name, answer.code ?? answer.outcome]).toEqual([name, OUTCOMES[name]])
  expect(await sendFromCode(`${code.slice(0, 9)}${code.at(-1) === '2' ? '3' : '2'}`, name, input, id())).toMatchObject({
    code: 'codeChanged',
  })
})

describe('routes', () => {
  const rows = (setupId: string) =>
    getRows(new Request('http://127.0.0.1/'), { params: Promise.resolve({ id: setupId }) })
  const send = async (entry: object) =>
    postOutbox(
      new Request('http://127.0.0.1/api/outbox', {
        method: 'POST',
        headers: { 'content-type': 'application/json', host: '127.0.0.1' },
        body: JSON.stringify({ ...entry, author: here.userId, madeAtMs: Date.now() }),
      }),
    )

  test('signed out, neither rows are handed out nor entries taken', async () => {
    person = null
    expect((await rows('setup-member-01')).status).toBe(401)
    expect((await send(ENTRIES[0])).status).toBe(401)
  })

  test('rows of another studio’s set-up are not there; who may not set riders up gets the reason', async () => {
    person = as('manager')
    expect((await rows(other.setup)).status).toBe(404)
    person = as('desk')
    expect((await rows('setup-member-01')).status).toBe(403)
  })

  test.each(ENTRIES)('the outbox takes $op for nobody else’s rows, and not from the desk', async (entry) => {
    person = as('manager')
    await seesNothing(async () => (await send(entry)).json())
    person = as('desk')
    expect(await (await send({ ...entry, id: id() })).json()).toMatchObject({ code: 'notAllowed' })
  })
})

test('roles: the desk sees names, places and numbers, no health notes; managers alone change types', () => {
  const allowed = (role: Role) =>
    (
      [
        'seeNumbers',
        'assignBikes',
        'planClasses',
        'seeNotes',
        'setUpRiders',
        'inspectBikes',
        'manageBikes',
        'manageStudio',
      ] as const
    ).filter((p) => can({ role }, p))
  expect(allowed('desk')).toEqual(['seeNumbers', 'assignBikes'])
  expect(allowed('instructor')).toEqual([
    'seeNumbers',
    'assignBikes',
    'planClasses',
    'seeNotes',
    'setUpRiders',
    'inspectBikes',
  ])
  expect(allowed('manager')).toHaveLength(8)
})
