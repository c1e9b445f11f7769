/**
 * Fills the studio that is there up to a large one: `--members` members and `--setups` finished set-ups over three
 * years, with rows, notes and a day's class. Seeded: the same numbers every time. Run through `npm run seed:large`.
 */
import { agreed } from './history/consents'
import { parseArgs } from 'node:util'
import { count, sql } from 'drizzle-orm'
import { createRng } from '../core/base/rng'
import { axesOf, axisOf } from '../core/bikes/bike/bike'
import type { Marks } from '../core/base/conventions'
import type { Evidence } from '../core/riders/evidence/registry'
import { positionsOf } from '../core/bikes/scale/scale'
import { SIGNS } from '../core/classes/watch/signs'
import type { Scope } from '../server/platform/accounts/scope'
import { listBikes } from '../server/bikes/bikes'
import { closeDatabase, database } from '../server/platform/db/connection'
import { registerEntry, evidence, setup } from '../server/setups/tables'
import { member } from '../server/riders/tables'
import { bikeAssignment, classNote } from '../server/classes/tables'
import { addWords } from '../server/riders/members/words'
import { momentAt } from '../server/studio/day'
import { studioDay } from '../core/messages/words/dates'
import { openFloor } from '../server/classes/classes'
import { getStudio } from '../server/studio/studio'

const { values } = parseArgs({
  options: {
    members: { type: 'string', default: '20000' },
    setups: { type: 'string', default: '100000' },
    seed: { type: 'string', default: '1' },
  },
})
const [MEMBERS, SETUPS] = [Number(values.members), Number(values.setups)]
const BATCH = 1000
const THREE_YEARS_MS = 3 * 365 * 86_400_000
const FIRST = [
  'Ada',
  'Bo',
  'Cleo',
  'Dag',
  'Eir',
  'Finn',
  'Gro',
  'Hedda',
  'Ivo',
  'Juno',
  'Kai',
  'Liv',
  'Mika',
  'Nils',
  'Oda',
  'Pål',
  'Runa',
  'Sif',
  'Tor',
  'Una',
  'Vidar',
  'Ylva',
]
const LAST = [
  'Ashmoor',
  'Brackwater',
  'Cairnside',
  'Dunvale',
  'Eskdale',
  'Fenwright',
  'Gorsewell',
  'Heathercombe',
  'Inverloch',
  'Kestrand',
  'Lochmarsh',
  'Marram',
  'Netherby',
  'Oxlade',
  'Pryde',
  'Reedham',
  'Saltmarsh',
  'Tarnwick',
  'Underhill',
  'Wexcombe',
]

const db = database()
const random = createRng(Number(values.seed))
const pick = <T>(items: readonly T[]): T => items[Math.floor(random.uniform() * items.length)]
const now = Date.now()
const scope: Scope = { studioId: 'netloft-hall', userId: 'ines-harrow', role: 'manager' }
const { studioId, userId: createdBy } = scope
const studio = await getStudio(db, scope)
const bikes = await listBikes(db, scope)
const [{ there }] = await db.select({ there: count() }).from(member)
const began = Date.now()

await inBatches(Math.max(0, MEMBERS - there), async (from, to) => {
  const rows = range(from, to).map((i) => ({
    id: memberId(i),
    studioId,
    name: `${pick(FIRST)} ${pick(LAST)} ${i}`,
    createdAt: new Date(now - random.uniform() * THREE_YEARS_MS),
    createdBy,
  }))
  await db.insert(member).values(rows)
  await agreed(
    db,
    rows.map(({ id }) => id),
    new Date(now),
  )
  await addWords(db, scope, rows)
})
await inBatches(SETUPS, async (from, to) => {
  const made = range(from, to).map((i) => {
    const bike = pick(bikes)
    const at = new Date(now - random.uniform() * THREE_YEARS_MS)
    return {
      id: `large-setup-${i}`,
      bike,
      at,
      memberId: memberId(Math.floor(random.uniform() * Math.max(1, MEMBERS - there))),
      marks: marksOf(bike),
    }
  })
  const rows = made.flatMap(({ id, at, marks }) => {
    const seen: Evidence[] = [
      { kind: 'rider', experience: pick(['new', 'regular', 'experienced'] as const) },
      { kind: 'stature', mm: 1500 + Math.round(500 * random.uniform()) },
      { kind: 'kneeByEye', seen: 'slightBend', at: { seatHeight: marks.seatHeight, seatSlide: marks.seatSlide } },
      { kind: 'set', at: marks },
    ]
    return seen.map((row, k) => ({ id: `${id}-${k}`, studioId, setupId: id, row, createdAt: at, createdBy }))
  })
  await db.insert(setup).values(
    made.map(({ id, bike, at, memberId: rider }) => ({
      id,
      studioId,
      memberId: rider,
      bikeId: bike.id,
      typeId: bike.typeId,
      machineCalibration: bike.machineCalibration,
      startedAt: at,
      startedBy: createdBy,
      finishedAt: at,
      finishedBy: createdBy,
      numbersId: `${id}-3`,
    })),
  )
  await db.insert(evidence).values(rows)
  await db.insert(registerEntry).values(
    made.map(({ id, bike, at, memberId: rider, marks }) => ({
      id,
      studioId,
      memberId: rider,
      lineId: bike.lineId,
      typeId: bike.typeId,
      purpose: 'usual' as const,
      source: 'setUp' as const,
      certainty: 'checked' as const,
      marks,
      bikeId: bike.id,
      machineCalibration: bike.machineCalibration,
      basis: { seen: ['stature', 'kneeByEye'] as const },
      setupId: id,
      sinceAt: at,
      createdAt: at,
      createdBy,
    })),
  )
})
await inBatches(Math.round(SETUPS / 4), async (from, to) => {
  const rows = range(from, to).map((i) => {
    const sign = pick(SIGNS)
    return {
      id: `large-note-${i}`,
      studioId,
      memberId: memberId(Math.floor(random.uniform() * Math.max(1, MEMBERS - there))),
      bikeId: pick(bikes).id,
      region: sign.region,
      sign: sign.sign,
      side: 'both' as const,
      createdAt: new Date(now - random.uniform() * THREE_YEARS_MS),
      createdBy,
    }
  })
  await db.insert(classNote).values(rows)
})
await db.execute(sql`
  UPDATE member SET latest_setup_id = (
    SELECT s.id FROM setup s WHERE s.member_id = member.id AND s.finished_at IS NOT NULL
    ORDER BY s.finished_at DESC, s.id DESC LIMIT 1)
  WHERE id LIKE 'large-%'`)
await db.execute(sql`
  INSERT IGNORE INTO register_current (member_id, line_id, purpose, studio_id, entry_id)
  SELECT member_id, line_id, purpose, studio_id, id FROM register_entry WHERE id LIKE 'large-%'
  ORDER BY created_at DESC, id DESC`)
await db.execute(sql`
  UPDATE member SET latest_entry_id = (
    SELECT e.id FROM register_entry e WHERE e.member_id = member.id ORDER BY e.created_at DESC, e.id DESC LIMIT 1)
  WHERE id LIKE 'large-%'`)
const day = studioDay(new Date(), studio.timeZone)
const span = { day, from: momentAt(day, '00:00', studio.timeZone), to: momentAt(day, '23:59', studio.timeZone) }
const classId = await openFloor(db, scope, span, new Date())
const free = bikes.filter((b) => b.openFaults === 0)
await db
  .insert(bikeAssignment)
  .ignore()
  .values(
    free.map((bike, i) => ({
      studioId,
      bikeId: bike.id,
      memberId: memberId(i),
      classId,
      createdAt: new Date(),
      createdBy,
    })),
  )
await closeDatabase()
console.log(`${MEMBERS} members, ${SETUPS} set-ups, in ${Math.round((Date.now() - began) / 1000)} s.`)

function memberId(i: number): string {
  return `large-${i}`
}
function range(from: number, to: number): number[] {
  return Array.from({ length: to - from }, (_, i) => from + i)
}
async function inBatches(many: number, work: (from: number, to: number) => Promise<void>): Promise<void> {
  for (let from = 0; from < many; from += BATCH) await work(from, Math.min(many, from + BATCH))
}
function marksOf({ type }: (typeof bikes)[number]): Marks {
  return Object.fromEntries(axesOf(type).map((axis) => [axis, pick(positionsOf(axisOf(type, axis)!.scale)).label]))
}
