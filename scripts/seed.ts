/**
 * Seeds Netloft Hall into an empty database; one that has a studio already is left as it is. With `--empty` only the
 * studio and its instructors: bikes and members are brought in by hand. With `--history` twenty weeks of classes too.
 */
import { count } from 'drizzle-orm'
import { createRng } from '../core/base/rng'
import { axesOf, axisOf, type Bike, type BikeType } from '../core/bikes/bike/bike'
import { contactPoints, resolveMarks } from '../core/bikes/bike/contactPoints'
import type { BikeReading } from '../core/bikes/calibration/bikeReading'
import { TAPE_SD_MM } from '../core/bikes/calibration/fitTape'
import { LENGTHS } from '../core/bikes/calibration/readings'
import type { Marks } from '../core/base/conventions'
import type { Evidence } from '../core/riders/evidence/registry'
import { INSPECTION_ITEMS } from '../core/bikes/bike/inspection'
import { advise } from '../core/setups/recommend/recommend'
import { priorFor } from '../core/riders/rider/prior'
import { positionsOf } from '../core/bikes/scale/scale'
import { hashPassword } from '../server/platform/accounts/hashing'
import type { Scope } from '../server/platform/accounts/scope'
import { closeDatabase, database, type Database, type DbExecutor } from '../server/platform/db/connection'
import * as accounts from '../server/platform/accounts/tables'
import * as bikeTables from '../server/bikes/tables'
import * as riderTables from '../server/riders/tables'
import { appendEvidence, finishSetup } from '../server/setups/evidence'
import { startSetup } from '../server/setups/setups'
import { findBike } from '../server/bikes/bikes'
import { addBikeReading } from '../server/bikes/bikeReadings'
import { recordInspection } from '../server/bikes/inspections'
import { addWords } from '../server/riders/members/words'
import { assignBike } from '../server/classes/assignments'
import { addClass, changeClass } from '../server/classes/classes'
import { addNote, changeNote } from '../server/classes/notes'
import { bookRider } from '../server/classes/roster'
import { addComplaint, addOwnComplaint } from '../server/comfort/complaints'
import { startTrial } from '../server/commands/useCases/startTrial'
import { reasonsOf } from '../server/pages/comfort/reasons'
import { rateTrial } from '../server/comfort/trialChanges'
import { openLink } from '../server/riders/memberPage/links'
import { saveRoom } from '../server/classes/rooms/rooms'
import { dayAfter, momentAt } from '../server/studio/day'
import { studioDay } from '../core/messages/words/dates'
import { signNamed } from '../core/classes/watch/signs'
import {
  crestAtMark,
  drawRider,
  kneeByEye,
  goniometer,
  heelCheck,
  statureAndInseam,
} from '../core/simulated/simulatedRider'
import { careHistory } from './history/care'
import { daysBefore, memberId, memberNumber } from './history/hall'
import { agreed } from './history/consents'
import { addHistory } from './history/history'
import { accountsThatOpen } from './support/demoAccounts'
import {
  BIKES,
  CALIBRATION,
  CLASSES,
  BLOCKS,
  EQUIPMENT,
  INSTRUCTORS,
  MEMBERS,
  PEOPLE,
  PLACES,
  ROOM,
  STUDIO,
  TYPES,
} from './netloftHall'

const SEED = 1898
/** The member who was read once more after the ride: their complaint is measured, and on trial. */
const MEASURED_LOW = 4
/** The first ten members have been set up on one of the bikes on earlier days. */
const SET_UP_BEFORE = 10
const QUARTER_MS = 900_000
/** What was seen in yesterday's class. */
const SEEN: readonly [member: number, sign: string, minute: number, cued: boolean, held: boolean | null][] = [
  [1, 'toesDown', 6, true, false],
  [1, 'toesDown', 15, true, false],
  [1, 'toesDown', 31, true, false],
  [3, 'shrugged', 9, true, true],
  [4, 'kneesOut', 12, true, false],
  [6, 'bouncing', 27, true, true],
  [8, 'turnedHead', 18, false, null],
]

const db = database()
const [already] = await db.select().from(accounts.studio).limit(1)
if (!already)
  await (process.argv.includes('--empty') ? db.transaction((tx) => studioAndPeople(asDatabase(tx))) : seed())
// The start prints them: the last line, for the person who runs it.
console.log(JSON.stringify(await accountsThatOpen(database(), PEOPLE)))
await closeDatabase()

async function seed(): Promise<void> {
  const now = new Date()
  await db.transaction(async (transaction) => {
    const tx = asDatabase(transaction)
    await studioAndPeople(tx)
    for (const [id, definition] of Object.entries(TYPES)) {
      const type = id as keyof typeof TYPES
      await tx.insert(bikeTables.bikeTypeLine).values({ id, studioId: STUDIO.id, name: definition.name })
      await tx.insert(bikeTables.bikeType).values({
        id,
        studioId: STUDIO.id,
        lineId: id,
        version: 1,
        definition,
        equipment: EQUIPMENT[type],
        calibration: CALIBRATION,
        createdAt: daysBefore(now, 70),
        createdBy: INSTRUCTORS[0].id,
      })
    }
    for (const bike of BIKES) await machine(tx, bike, now)
    await careHistory(tx, BIKES, INSTRUCTORS, now)
    for (const [i, { name }] of MEMBERS.entries()) {
      await tx.insert(riderTables.member).values({
        id: memberId(i),
        studioId: STUDIO.id,
        name,
        number: memberNumber(i),
        createdAt: daysBefore(now, 60 - i),
        createdBy: INSTRUCTORS[i % 2].id,
      })
    }
    await agreed(
      tx,
      MEMBERS.map((_, i) => memberId(i)),
      now,
    )
    await addWords(
      tx,
      scopeOf(INSTRUCTORS[0]),
      MEMBERS.map(({ name }, i) => ({ id: memberId(i), name })),
    )
    for (let i = 0; i < SET_UP_BEFORE; i++) await pastSetup(tx, i, daysBefore(now, 4 + 3 * i))
    await roomAndClasses(tx, now)
    await felt(tx, now)
    if (process.argv.includes('--history')) await addHistory(tx, INSTRUCTORS.map(scopeOf), now)
    await addNote(tx, scopeOf(INSTRUCTORS[1]), {
      id: 'seed-note-1',
      memberId: memberId(0),
      bikeId: 'bike-1',
      region: 'feet',
      sign: 'toesDown',
      side: 'both',
      createdAt: daysBefore(now, 3),
    })
    await addNote(tx, scopeOf(INSTRUCTORS[0]), {
      id: 'seed-note-2',
      memberId: memberId(3),
      bikeId: 'bike-4',
      region: 'shoulders',
      sign: 'shrugged',
      side: 'left',
      createdAt: daysBefore(now, 6),
    })
  })
  const [{ members }] = await db.select({ members: count() }).from(riderTables.member)
  console.log(`Seeded ${STUDIO.name}, ${STUDIO.place}: ${members} members, ${BIKES.length} bikes.`)
}

/** The room with its bikes, the week's classes, and what was seen in yesterday's. */
async function roomAndClasses(tx: Tx, now: Date): Promise<void> {
  const scope = scopeOf(INSTRUCTORS[0])
  const places = PLACES.map(({ number, ...place }) => ({ ...place, bikeId: `bike-${number}` }))
  await saveRoom(tx, scope, { ...ROOM, places }, daysBefore(now, 65))
  for (const [c, { id, title, at, minutes, riders }] of CLASSES.entries()) {
    const startsAt = at
      ? momentAt(dayAfter(studioDay(now, STUDIO.timeZone), at[0]), at[1], STUDIO.timeZone)
      : new Date(Math.ceil((now.getTime() + 20 * 60_000) / QUARTER_MS) * QUARTER_MS)
    const endsAt = new Date(startsAt.getTime() + minutes * 60_000)
    const facts = { id, title, startsAt, endsAt, roomId: ROOM.id, teacherId: INSTRUCTORS[c % 2].id }
    await addClass(tx, scope, facts, daysBefore(now, 12))
    if (minutes === 45) await changeClass(tx, scope, id, { blocks: BLOCKS })
    const past = endsAt < now
    for (const [member, comesMinBefore] of riders)
      await bookRider(
        tx,
        scope,
        { classId: id, memberId: memberId(member), state: past ? 'here' : 'booked', comesMinBefore },
        daysBefore(now, 3),
      )
    if (past)
      for (const [member] of riders)
        await assignBike(
          tx,
          scope,
          { id: `${id}-seat-${member}`, classId: id, bikeId: `bike-${member + 1}`, memberId: memberId(member) },
          startsAt,
        )
  }
  await seenYesterday(tx, now)
}

async function seenYesterday(tx: Tx, now: Date): Promise<void> {
  const scope = scopeOf(INSTRUCTORS[1])
  const day = dayAfter(studioDay(now, STUDIO.timeZone), -1)
  const start = momentAt(day, '07:00', STUDIO.timeZone).getTime()
  for (const [i, [member, sign, minute, cued, isAnswered]] of SEEN.entries()) {
    const at = new Date(start + minute * 60_000)
    const id = `dawn-note-${i + 1}`
    const who = { memberId: memberId(member), bikeId: `bike-${member + 1}`, classId: 'class-dawn' }
    const { region, sided } = signNamed(sign)!
    const side = sided ? 'left' : 'both'
    await addNote(tx, scope, { id, ...who, region, sign, side, minute, strength: 'clear', cued, createdAt: at })
    if (isAnswered !== null) await changeNote(tx, scope, id, { held: isAnswered }, new Date(at.getTime() + 120_000))
  }
  const felt = { region: 'feltLowBack', sign: 'felt', side: 'both', score: 4, minute: 38 } as const
  const who = { memberId: memberId(4), bikeId: 'bike-5', classId: 'class-dawn' }
  await addNote(tx, scope, { id: 'dawn-felt-1', ...who, ...felt, createdAt: new Date(start + 38 * 60_000) })
}

/** A complaint that is on trial and due, and one from a member's own page that nobody has looked at. */
async function felt(tx: Tx, now: Date): Promise<void> {
  const [teacher, trying] = [scopeOf(INSTRUCTORS[0]), memberId(4)]
  const begun = daysBefore(now, 9)
  const knee = { id: 'seed-complaint-1', memberId: trying, bikeId: 'bike-5', what: 'frontKnee', side: 'left' } as const
  await addComplaint(tx, teacher, { ...knee, strength: 6, moment: 'seated', lasts: false }, daysBefore(now, 10))
  const { answer } = await reasonsOf(tx, teacher, trying, begun)
  const { axis, to, deg } = answer!.change!
  const shown = { axis, ...(to !== undefined && { to }), ...(axis === 'tilt' && { deg }) }
  const input = { id: 'seed-trial-1', memberId: trying, complaintId: knee.id, shown, weeks: 2, reason: null } as const
  await startTrial(tx, teacher, { ...input, ratingBefore: 6 }, begun)
  for (const [days, rating] of [
    [8, 5],
    [1, 3],
  ])
    await rateTrial(tx, teacher, { id: `seed-rating-${days}`, trialId: input.id, rating }, daysBefore(now, days - 0.5))
  const link = (await openLink(tx, teacher, memberId(3), daysBefore(now, 13)))!
  const owner = { linkId: link.id, studioId: STUDIO.id, memberId: memberId(3) }
  const hands = { what: 'hands', side: 'both', strength: 5, moment: 'late', lasts: false } as const
  const line = 'Fingers go to sleep in the long climb'
  await addOwnComplaint(tx, owner, { id: 'seed-complaint-2', ...hands, line }, daysBefore(now, 0.5))
}

/** Use cases open a transaction of their own; within the seed's it is a savepoint. */
type Tx = Database

function scopeOf({ id, role }: (typeof PEOPLE)[number]): Scope {
  return { studioId: STUDIO.id, userId: id, role }
}

function asDatabase(tx: DbExecutor): Tx {
  return tx as unknown as Tx
}

async function studioAndPeople(tx: Tx): Promise<void> {
  const passwords = await Promise.all(PEOPLE.map((person) => hashPassword(person.password)))
  await tx.insert(accounts.studio).values({ ...STUDIO, school: { foreAft: 'plumb' } })
  for (const [i, person] of PEOPLE.entries()) {
    await tx.insert(accounts.user).values({
      id: person.id,
      name: person.name,
      email: `${person.username}@netloft-hall.example`,
      username: person.username,
      displayUsername: person.username,
      studioId: STUDIO.id,
      role: person.role,
    })
    await tx.insert(accounts.account).values({
      id: `${person.id}-password`,
      accountId: person.id,
      providerId: 'credential',
      userId: person.id,
      password: passwords[i],
    })
  }
}

/** One machine with its tilt reading, its last look-over and, where it has one, its open fault. */
async function machine(
  tx: Tx,
  { number, type, machineCalibration, floorDeg, lookedDaysAgo, fault }: (typeof BIKES)[number],
  now: Date,
): Promise<void> {
  const id = `bike-${number}`
  const scope = scopeOf(INSTRUCTORS[number % 2])
  await tx.insert(bikeTables.bike).values({ id, studioId: STUDIO.id, typeId: type, number, machineCalibration })
  const tilt = {
    kind: 'tilt',
    deg: Number((machineCalibration.tiltDeg! + floorDeg).toFixed(1)),
    floorDeg,
    across: type === 'bracken' ? 'frontHalf' : 'highestPoints',
  } as const
  for (const [k, row] of tapesOf(TYPES[type], machineCalibration, number).entries())
    await addBikeReading(tx, scope, { id: `${id}-tape-${k}`, bikeId: id, row }, daysBefore(now, 31))
  await addBikeReading(tx, scope, { id: `${id}-tilt`, bikeId: id, row: tilt }, daysBefore(now, 30))
  if (lookedDaysAgo === null) return
  const good = INSPECTION_ITEMS.filter((item) => item !== fault?.item)
  const faults = fault ? [{ id: `${id}-fault`, ...fault }] : []
  await recordInspection(tx, scope, { id: `${id}-look`, bikeId: id, good, faults }, daysBefore(now, lookedDaysAgo))
}

/** The tape on one machine at two settings, as a careful hand reads it. */
function tapesOf(bikeType: BikeType, bike: Bike, number: number): BikeReading[] {
  const random = createRng(SEED + 1000 + number)
  const ends = (share: number): Marks =>
    Object.fromEntries(
      axesOf(bikeType).map((axis) => {
        const positions = positionsOf(axisOf(bikeType, axis)!.scale)
        return [axis, positions[Math.floor(share * (positions.length - 1))].label]
      }),
    )
  return [0.3, 0.7].map((share) => {
    const { lengths } = contactPoints(bikeType, bike, resolveMarks(bikeType, ends(share)).positions)
    const read = LENGTHS.map((length) => [length, Math.round(lengths[length] + TAPE_SD_MM * random.normal())] as const)
    return { kind: 'tape', marks: ends(share), lengths: Object.fromEntries(read) }
  })
}

/** A set-up as it would have gone: a simulated body of this stature, led by the recommendation until it stopped. */
async function pastSetup(tx: Tx, i: number, at: Date): Promise<void> {
  const bike = BIKES[i % 6]
  const bikeType = TYPES[bike.type]
  const member = MEMBERS[i]
  const population = priorFor('natural', { statureMm: { mean: member.statureMm, sd: 0 } })
  const rider = drawRider(population, bikeType, createRng(SEED + i))
  const withTape = i % 2 === 0
  const scope = scopeOf(INSTRUCTORS[i % 2])
  const machine = (await findBike(tx, scope, `bike-${bike.number}`))!
  const evidence: Evidence[] = [
    { kind: 'rider', experience: member.experience },
    ...(withTape ? statureAndInseam(rider).map(rounded) : [crestAtMark(rider)]),
  ]
  for (let mounts = 0; mounts < 5; mounts++) {
    const { next, marks } = advise({ bikeType, bike: machine.machineCalibration, evidence })
    const now: Marks = { ...marks, ...Object.fromEntries(next.moves.map((m) => [m.axis, m.to])) }
    evidence.push({ kind: 'set', at: now })
    if (next.kind === 'stop') break
    evidence.push(...(withTape ? [rounded(goniometer(rider, now))] : [kneeByEye(rider, now), heelCheck(rider, now)]))
  }
  if (i === MEASURED_LOW)
    evidence.push({
      kind: 'kneeAngle',
      by: 'goniometer',
      deg: 39,
      at: evidence.findLast(({ kind }) => kind === 'set')!.at,
    })
  const id = `setup-${memberId(i)}`
  const after = (ms: number) => new Date(at.getTime() + ms)
  await startSetup(tx, scope, { id, memberId: memberId(i), bikeId: machine.id }, after(-390_000))
  for (const [k, row] of evidence.entries())
    await appendEvidence(tx, scope, id, { id: `${id}-${k}`, row }, after(-370_000 + k * 20_000))
  const numbers = evidence.findLast((row) => row.kind === 'set')!
  await finishSetup(tx, scope, id, { id: `${id}-numbers`, marks: numbers.at! }, at)
}

/** Readings as a person writes them down. */
function rounded(row: Evidence): Evidence {
  if (row.kind === 'kneeAngle') return { ...row, deg: Math.round(row.deg) }
  if (row.kind === 'stature' || row.kind === 'inseam') return { ...row, mm: Math.round(row.mm / 5) * 5 }
  return row
}
