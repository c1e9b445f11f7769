/**
 * Seeds Netloft Hall into an empty database; one that has a studio already is left as it is. With `--empty` only the
 * studio and its instructors: bikes and members are brought in by hand.
 */
import { randomFrom } from '../core/belief/random'
import { axesOf, axisOf, type Bike, type BikeType } from '../core/bike/bike'
import { placeAt, positionsOf } from '../core/bike/place'
import type { BikeReading } from '../core/calibration/bikeReading'
import { TAPE_SD_MM } from '../core/calibration/fitTape'
import { LENGTHS } from '../core/calibration/readings'
import type { Marks } from '../core/conventions'
import type { Evidence } from '../core/evidence/evidence'
import { INSPECTION_ITEMS } from '../core/bike/inspection'
import { recommend } from '../core/recommend/recommend'
import { priorFor } from '../core/rider/prior'
import { stopsOf } from '../core/scale/scale'
import { hashPassword } from '../server/accounts/auth'
import { closeDatabase, database } from '../server/db/connection'
import * as tables from '../server/db/schema'
import { appendEvidence, finishSetup, startSetup } from '../server/setups/setups'
import { bikeById } from '../server/bikes/bikes'
import { recomputeMachine } from '../server/bikes/machineCalibration'
import { addBikeReading, recordInspection } from '../server/bikes/machines'
import { addNote } from '../server/notes/notes'
import { crestAtMark, drawRider, eye, goniometer, heel, statureAndInseam } from '../core/simulated/simulatedRider'
import { BIKES, CALIBRATION, INSTRUCTORS, MEMBERS, SHEETS, STUDIO, TYPES } from './netloftHall'

const SEED = 1898
/** The first ten members have been set up on one of the bikes on earlier days. */
const SET_UP_BEFORE = 10

const db = database()
const [already] = await db.select().from(tables.studio).limit(1)
if (!already) await (process.argv.includes('--empty') ? db.transaction((tx) => studioAndPeople(tx)) : seed())
await closeDatabase()

async function seed(): Promise<void> {
  const now = new Date()
  await db.transaction(async (tx) => {
    await studioAndPeople(tx)
    for (const [id, definition] of Object.entries(TYPES)) {
      const type = id as keyof typeof TYPES
      await tx.insert(tables.bikeTypeLine).values({ id, studioId: STUDIO.id, name: definition.name })
      await tx.insert(tables.bikeType).values({
        id,
        studioId: STUDIO.id,
        lineId: id,
        version: 1,
        definition,
        sheet: SHEETS[type],
        calibration: CALIBRATION,
        madeAt: daysBefore(now, 70),
        madeBy: INSTRUCTORS[0].id,
      })
    }
    for (const bike of BIKES) await machine(tx, bike, now)
    for (const [i, { name }] of MEMBERS.entries()) {
      await tx.insert(tables.member).values({
        id: memberId(i),
        studioId: STUDIO.id,
        name,
        addedAt: daysBefore(now, 60 - i),
        addedBy: INSTRUCTORS[i % 2].id,
      })
    }
    for (let i = 0; i < SET_UP_BEFORE; i++) await pastSetup(tx, i, daysBefore(now, 4 + 3 * i))
    await addNote(tx, {
      id: 'seed-note-1',
      memberId: memberId(0),
      bikeId: 'bike-1',
      region: 'feet',
      sign: 'toesDown',
      side: 'both',
      at: daysBefore(now, 3),
      by: INSTRUCTORS[1].id,
    })
    await addNote(tx, {
      id: 'seed-note-2',
      memberId: memberId(3),
      bikeId: 'bike-4',
      region: 'shoulders',
      sign: 'shrugged',
      side: 'left',
      at: daysBefore(now, 6),
      by: INSTRUCTORS[0].id,
    })
  })
  console.log(`Seeded ${STUDIO.name}, ${STUDIO.place}: ${MEMBERS.length} members, ${BIKES.length} bikes.`)
}

type Tx = Parameters<typeof startSetup>[0]

async function studioAndPeople(tx: Tx): Promise<void> {
  const passwords = await Promise.all(INSTRUCTORS.map((i) => hashPassword(i.password)))
  await tx.insert(tables.studio).values({ ...STUDIO, school: {} })
  for (const [i, person] of INSTRUCTORS.entries()) {
    await tx.insert(tables.user).values({
      id: person.id,
      name: person.name,
      email: `${person.username}@netloft-hall.example`,
      username: person.username,
      displayUsername: person.username,
    })
    await tx.insert(tables.account).values({
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
  { number, type, own, floorDeg, lookedDaysAgo, fault }: (typeof BIKES)[number],
  now: Date,
): Promise<void> {
  const id = `bike-${number}`
  const by = INSTRUCTORS[number % 2].id
  await tx.insert(tables.bike).values({ id, studioId: STUDIO.id, typeId: type, number, own })
  const tilt = {
    kind: 'tilt',
    deg: Number((own.tiltDeg! + floorDeg).toFixed(1)),
    floorDeg,
    across: type === 'bracken' ? 'frontHalf' : 'highestPoints',
  } as const
  await addBikeReading(tx, { id: `${id}-tilt`, bikeId: id, row: tilt, at: daysBefore(now, 30), by })
  for (const [k, row] of tapesOf(TYPES[type], own, number).entries())
    await addBikeReading(tx, { id: `${id}-tape-${k}`, bikeId: id, row, at: daysBefore(now, 31), by })
  await recomputeMachine(tx, id)
  if (lookedDaysAgo === null) return
  const good = INSPECTION_ITEMS.filter((item) => item !== fault?.item)
  await recordInspection(tx, {
    id: `${id}-look`,
    bikeId: id,
    good,
    faults: fault ? [{ id: `${id}-fault`, ...fault }] : [],
    at: daysBefore(now, lookedDaysAgo),
    by,
  })
}

/** The tape on one machine at two settings, as a careful hand reads it. */
function tapesOf(bikeType: BikeType, own: Bike, number: number): BikeReading[] {
  const random = randomFrom(SEED + 1000 + number)
  const ends = (share: number): Marks =>
    Object.fromEntries(
      axesOf(bikeType).map((axis) => {
        const stops = stopsOf(axisOf(bikeType, axis)!.scale)
        return [axis, stops[Math.floor(share * (stops.length - 1))].label]
      }),
    )
  return [0.3, 0.7].map((share) => {
    const { lengths } = placeAt(bikeType, own, positionsOf(bikeType, ends(share)).positions)
    const read = LENGTHS.map((length) => [length, Math.round(lengths[length] + TAPE_SD_MM * random.normal())] as const)
    return { kind: 'tape', marks: ends(share), lengths: Object.fromEntries(read) }
  })
}

function memberId(i: number): string {
  return `member-${String(i + 1).padStart(2, '0')}`
}

function daysBefore(now: Date, days: number): Date {
  return new Date(now.getTime() - days * 86_400_000 - 3_600_000)
}

/** A set-up as it would have gone: a simulated body of this stature, led by the recommendation until it said stop. */
async function pastSetup(tx: Tx, i: number, at: Date): Promise<void> {
  const bike = BIKES[i % 6]
  const bikeType = TYPES[bike.type]
  const member = MEMBERS[i]
  const population = priorFor('natural', { statureMm: { mean: member.statureMm, sd: 0 } })
  const rider = drawRider(population, bikeType, randomFrom(SEED + i))
  const withTape = i % 2 === 0
  const machine = (await bikeById(tx, `bike-${bike.number}`))!
  const evidence: Evidence[] = [
    { kind: 'rider', experience: member.experience },
    ...(withTape ? statureAndInseam(rider).map(rounded) : [crestAtMark(rider)]),
  ]
  for (let mounts = 0; mounts < 5; mounts++) {
    const { next, marks } = recommend({ bikeType, bike: machine.own, evidence })
    const now: Marks = { ...marks, ...Object.fromEntries(next.moves.map((m) => [m.axis, m.to])) }
    evidence.push({ kind: 'set', at: now })
    if (next.kind === 'stop') break
    evidence.push(...(withTape ? [rounded(goniometer(rider, now))] : [eye(rider, now), heel(rider, now)]))
  }
  const by = INSTRUCTORS[i % 2].id
  const id = `setup-${memberId(i)}`
  await startSetup(tx, { id, memberId: memberId(i), bike: machine, at: new Date(at.getTime() - 600_000), by })
  for (const [k, row] of evidence.entries())
    await appendEvidence(tx, id, { id: `${id}-${k}`, row }, new Date(at.getTime() - 500_000 + k * 30_000), by)
  const numbers = evidence.findLast((row) => row.kind === 'set')!
  await finishSetup(tx, id, { id: `${id}-numbers`, marks: numbers.at! }, at, by)
}

/** Readings as a person writes them down. */
function rounded(row: Evidence): Evidence {
  if (row.kind === 'kneeAngle') return { ...row, deg: Math.round(row.deg) }
  if (row.kind === 'stature' || row.kind === 'inseam') return { ...row, mm: Math.round(row.mm / 5) * 5 }
  return row
}
