import { TAPE_SD_MM } from '../../core/bikes/calibration/fitTape'
import { axesOf, axisOf } from '../../core/bikes/bike/bike'
import type { Marks } from '../../core/base/conventions'
import type { Purpose } from '../../core/setups/register/entry'
import { createRng } from '../../core/base/rng'
import { priorFor } from '../../core/riders/rider/prior'
import { positionsOf } from '../../core/bikes/scale/scale'
import { drawRider } from '../../core/simulated/simulatedRider'
import { tapeAt } from '../../core/simulated/simulatedTape'
import type { Scope } from '../../server/platform/accounts/scope'
import { addTapeReading } from '../../server/bikes/tapeReadings'
import type { Database } from '../../server/platform/db/connection'
import * as riderTables from '../../server/riders/tables'
import { addWords } from '../../server/riders/members/words'
import { currentEntries, recordEntry } from '../../server/setups/register'
import { MEMBERS, STUDIO, TYPES } from '../netloftHall'
import { agreed } from './consents'
import { daysBefore, memberId, memberNumber, SEED, WEEKS, type Hall, type Rider } from './hall'

/** Number of members besides those of the base data. */
const MORE_MEMBERS = 60
const FIRST = [
  'Aldis',
  'Brynja',
  'Corwin',
  'Dervla',
  'Eskil',
  'Frida',
  'Gwennan',
  'Hollis',
  'Ingvar',
  'Josune',
  'Kerensa',
]
const MORE = ['Lowen', 'Maelle', 'Njord', 'Oriel', 'Piran', 'Rosmund', 'Sunniva', 'Torquil', 'Una', 'Vesper', 'Wenna']
const LAST = ['Ashgrove', 'Birkeland', 'Carrow', 'Dunmoor', 'Eldritch', 'Fossheim', 'Garnock', 'Holmquist', 'Islay']
const NAMES = ['Jarrow', 'Kilbride', 'Lomond', 'Marlow', 'Nesbit', 'Orwell', 'Penrose', 'Rannoch', 'Selwood', 'Tarrant']

/** Adds sixty members and draws a body for everybody. */
export async function addMembers(db: Database, scope: Scope, now: Date): Promise<Rider[]> {
  const random = createRng(SEED)
  const [firsts, lasts] = [
    [...FIRST, ...MORE],
    [...LAST, ...NAMES],
  ]
  const added = Array.from({ length: MORE_MEMBERS }, (_, i) => ({
    id: memberId(MEMBERS.length + i),
    // 22 and 19 share no divisor: no name occurs twice.
    name: `${firsts[i % firsts.length]} ${lasts[(i * 5) % lasts.length]}`,
  }))
  await db.insert(riderTables.member).values(
    added.map(({ id, name }, i) => ({
      id,
      studioId: STUDIO.id,
      name,
      number: memberNumber(MEMBERS.length + i),
      createdAt: daysBefore(now, WEEKS * 7 + 5 - 2 * i),
      createdBy: scope.userId,
    })),
  )
  await agreed(
    db,
    added.map(({ id }) => id),
    now,
  )
  await addWords(db, scope, added)
  const homes = ['sorrel', 'meadowsweet', 'bracken'] as const
  return Array.from({ length: MEMBERS.length + MORE_MEMBERS }, (_, i): Rider => {
    const statureMm = MEMBERS[i]?.statureMm ?? Math.round(1690 + 85 * random.normal())
    const home = homes[i % 3]
    const population = priorFor('natural', { statureMm: { mean: statureMm, sd: 0 } })
    const experience = MEMBERS[i]?.experience ?? (['new', 'regular', 'experienced'] as const)[i % 3]
    return { id: memberId(i), home, experience, body: drawRider(population, TYPES[home], createRng(SEED + i)) }
  })
}

/** Six readings of the tape on each type, on the version in force. */
export async function addTapes({ db, scopes, now }: Hall): Promise<void> {
  for (const [t, [typeId, type]] of Object.entries(TYPES).entries()) {
    const random = createRng(SEED + 500 + t)
    for (const [k, share] of [0.2, 0.4, 0.6, 0.8, 0.35, 0.7].entries()) {
      const marks: Marks = Object.fromEntries(
        axesOf(type).map((axis, a) => {
          const positions = positionsOf(axisOf(type, axis)!.scale)
          const at = a % 2 === 0 ? share : 1 - share
          return [axis, positions[Math.round(at * (positions.length - 1))].label]
        }),
      )
      const { lengths } = tapeAt(type, marks, random, TAPE_SD_MM)
      const read = Object.fromEntries(Object.entries(lengths).map(([name, mm]) => [name, Math.round(mm!)]))
      await addTapeReading(
        db,
        scopes[0],
        { id: `tape-${typeId}-${k}`, typeId, row: { marks, lengths: read } },
        daysBefore(now, 69),
      )
    }
  }
}

/** Adds numbers for another purpose, some of them self-reported. */
export async function addPurposes({ db, now, scopes, riders }: Hall): Promise<void> {
  const purposes: readonly Purpose[] = ['upright', 'starter', 'road']
  for (const [i, rider] of riders.slice(12, 30).entries()) {
    const [entry] = await currentEntries(db, scopes[0], [rider.id])
    if (!entry) continue
    const bars = positionsOf(axisOf(entry.type, 'barHeight')!.scale)
    const at = bars.findIndex(({ label }) => label === entry.marks.barHeight)
    const marks = { ...entry.marks, barHeight: bars[Math.min(bars.length - 1, at + 2)].label }
    await recordEntry(
      db,
      scopes[i % 2],
      {
        id: `history-purpose-${rider.id}`,
        memberId: rider.id,
        lineId: entry.lineId,
        typeId: entry.typeId,
        purpose: purposes[i % 3],
        source: i % 2 === 0 ? 'imported' : 'restored',
        certainty: i % 2 === 0 ? 'told' : 'checked',
        marks,
      },
      daysBefore(now, 20 - i),
    )
  }
}
