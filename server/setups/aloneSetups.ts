import { and, asc, count, desc, eq, gt, isNull, lt, or } from 'drizzle-orm'
import type { BikeType } from '../../core/bikes/bike/bike'
import type { Marks } from '../../core/base/conventions'
import type { Evidence } from '../../core/riders/evidence/registry'
import type { CodeOwner } from '../bikes/codes'
import { findBike } from '../bikes/bikes'
import { bike, bikeType } from '../bikes/tables'
import type { Scope } from '../platform/accounts/scope'
import type { DbExecutor } from '../platform/db/connection'
import { insertOnce } from '../platform/db/insertOnce'
import { sealRow } from '../platform/sealing/sealed'
import { appendEvidence, listEvidence } from './evidence'
import { findSetup, startSetup } from './setups'
import { aloneSetup } from './tables'
import { validateRow } from './validateRow'

/** What riders read of themselves alone; nothing about health is among it. */
const OWN_KINDS: readonly Evidence['kind'][] = [
  'rider',
  'landmarkAtMark',
  'set',
  'forearmGauge',
  'heelCheck',
  'kneeByEye',
  'plumbByEye',
  'elbows',
]
/** Of the answers to `rider` these alone are stored. */
const RIDER_FIELDS = ['kind', 'experience', 'pedal', 'soleMm']
/** Rows of one left behind, and so many left on one machine in an hour. */
export const MAX_OWN_ROWS = 60
const MAX_AN_HOUR = 20
const HOUR_MS = 3_600_000
/** Nobody looked for so long: it is deleted. What was put aside goes after a day. */
const MAX_AGE_MS = 30 * 24 * HOUR_MS
const ASIDE_MS = 24 * HOUR_MS

/** Numbers somebody set alone, not looked at. */
export type AloneSetup = Readonly<{
  id: string
  name: string
  bikeId: string
  number: number
  type: BikeType
  marks: Marks
  createdAt: Date
}>

export type LeaveResult = Readonly<{ outcome: 'kept' | 'idTaken' | 'outOfUse' | 'unreadable' | 'tooMany' }>

/** Stores numbers set alone under a name, until an instructor looks. Nobody is signed in. */
export async function leaveAloneSetup(
  tx: DbExecutor,
  { studioId, bikeId }: CodeOwner,
  { id, name, rows }: Readonly<{ id: string; name: string; rows: readonly Evidence[] }>,
  now: Date,
): Promise<LeaveResult> {
  const found = await findBike(tx, nobody(studioId), bikeId)
  if (!found || found.openFaults > 0 || found.retiredAt) return { outcome: 'outOfUse' }
  const checked = rows.map((row) => ownRow(found.type, row))
  const marks = checked.findLast((row) => row?.kind === 'set')?.at
  if (rows.length > MAX_OWN_ROWS || !marks || checked.some((row) => row === null)) return { outcome: 'unreadable' }
  const recent = and(eq(aloneSetup.bikeId, bikeId), gt(aloneSetup.createdAt, new Date(now.getTime() - HOUR_MS)))
  const [{ left }] = await tx.select({ left: count() }).from(aloneSetup).where(recent)
  if (left >= MAX_AN_HOUR) return { outcome: 'tooMany' }
  const content = { id, studioId, bikeId, name, marks, rows: checked as Evidence[] }
  return insertOnce(
    () => tx.insert(aloneSetup).values(sealRow(aloneSetup, studioId, { ...content, createdAt: now })),
    async () => {
      const {
        createdAt: _,
        endedAt: __,
        ...stored
      } = (await tx.select().from(aloneSetup).where(eq(aloneSetup.id, id)))[0]
      return stored
    },
    content,
  )
}

const nobody = (studioId: string): Scope => ({ studioId, userId: '', role: 'desk' })

/** The row as stored; null for what is none of a rider's own readings. */
function ownRow(bikeType: BikeType, row: Evidence): Evidence | null {
  if (!OWN_KINDS.includes(row?.kind)) return null
  const kept =
    row.kind === 'rider'
      ? (Object.fromEntries(Object.entries(row).filter(([field]) => RIDER_FIELDS.includes(field))) as Evidence)
      : row.kind === 'set'
        ? ({ kind: 'set', at: row.at } as Evidence)
        : ({ ...row, readBy: 'rider' } as Evidence)
  const checked = validateRow(bikeType, kept)
  return 'row' in checked ? checked.row : null
}

/** What was set alone in the studio and waits for a look, the latest first. */
export const listAloneSetups = (db: DbExecutor, { studioId }: Scope, now: Date): Promise<AloneSetup[]> =>
  db
    .select({
      id: aloneSetup.id,
      name: aloneSetup.name,
      bikeId: aloneSetup.bikeId,
      number: bike.number,
      type: bikeType.definition,
      marks: aloneSetup.marks,
      createdAt: aloneSetup.createdAt,
    })
    .from(aloneSetup)
    .innerJoin(bike, eq(bike.id, aloneSetup.bikeId))
    .innerJoin(bikeType, eq(bikeType.id, bike.typeId))
    .where(
      and(
        eq(aloneSetup.studioId, studioId),
        isNull(aloneSetup.endedAt),
        gt(aloneSetup.createdAt, new Date(now.getTime() - MAX_AGE_MS)),
      ),
    )
    .orderBy(desc(aloneSetup.createdAt), asc(aloneSetup.id))
    .limit(100)

export type LookResult =
  | Readonly<{ outcome: 'kept'; setupId: string }>
  /** `gone`: looked at or put aside meanwhile, or the studio has no such member. */
  | Readonly<{ outcome: 'gone' | 'outOfUse' }>

/**
 * Begins the instructor's look: a set-up of the member on the same machine with what they read of themselves; one that
 * is open there goes on with these rows behind its own. What was left behind is a part of it now, and goes.
 */
export async function lookAtAlone(
  tx: DbExecutor,
  scope: Scope,
  { id, memberId, setupId }: Readonly<{ id: string; memberId: string; setupId: string }>,
  now: Date,
): Promise<LookResult> {
  const own = and(eq(aloneSetup.id, id), eq(aloneSetup.studioId, scope.studioId), isNull(aloneSetup.endedAt))
  const [found] = await tx.select().from(aloneSetup).where(own).for('update')
  if (!found) return { outcome: 'gone' }
  const started = await startSetup(tx, scope, { id: setupId, memberId, bikeId: found.bikeId }, now)
  if (started.outcome !== 'kept') return started
  const { type } = (await findSetup(tx, scope, started.id))!
  const known = (await listEvidence(tx, scope, started.id)).findLast(({ row }) => row.kind === 'rider')?.row
  for (const own of found.rows) {
    // What is known of a member, health above all, outranks the two taps of somebody alone.
    const row = own.kind === 'rider' ? { ...own, ...known } : own
    // The type may have another version by now; what it does not know any more is left out.
    const checked = validateRow(type, row)
    if ('row' in checked)
      await appendEvidence(tx, scope, started.id, { id: crypto.randomUUID(), row: checked.row }, now)
  }
  await tx.delete(aloneSetup).where(own)
  return { outcome: 'kept', setupId: started.id }
}

/** Puts aside what was set alone, without a look; or takes it back out. */
export async function putAloneAside(
  tx: DbExecutor,
  { studioId }: Scope,
  id: string,
  aside: Date | null,
): Promise<void> {
  await tx
    .update(aloneSetup)
    .set({ endedAt: aside })
    .where(and(eq(aloneSetup.id, id), eq(aloneSetup.studioId, studioId)))
}

/** Deletes what nobody looked at for a month, and what was put aside a day ago, in every studio. */
export async function pruneAloneSetups(db: DbExecutor, now: Date): Promise<void> {
  const before = (ms: number) => new Date(now.getTime() - ms)
  await db
    .delete(aloneSetup)
    .where(or(lt(aloneSetup.createdAt, before(MAX_AGE_MS)), lt(aloneSetup.endedAt, before(ASIDE_MS))))
}
