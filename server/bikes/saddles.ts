import { and, asc, desc, eq, isNotNull, isNull, max } from 'drizzle-orm'
import type { SaddleModel } from '../../core/bikes/saddles/saddle'
import type { Scope } from '../platform/accounts/scope'
import { user } from '../platform/accounts/tables'
import { withTransaction, type Database, type DbExecutor } from '../platform/db/connection'
import { insertOnce, type WriteResult } from '../platform/db/insertOnce'
import { lockMachine, recomputeMachine } from './machineCalibration'
import { bike, bikeCare, saddle, saddleFitting } from './tables'

export type StudioSaddle = Readonly<{ id: string; model: SaddleModel; bikes: readonly number[] }>

/** The models of the studio by name, each with the machines in use that carry it. */
export async function listSaddles(db: DbExecutor, scope: Scope): Promise<StudioSaddle[]> {
  const rows = await db
    .select({ id: saddle.id, model: saddle.model })
    .from(saddle)
    .where(eq(saddle.studioId, scope.studioId))
  const carried = await carriers(db, scope)
  return rows
    .map((row) => ({
      ...row,
      bikes: carried.filter(({ saddleId }) => saddleId === row.id).map(({ number }) => number),
    }))
    .toSorted((a, b) => a.model.name.localeCompare(b.model.name))
}

/** Machines in use with the saddle they carry, by number. */
async function carriers(db: DbExecutor, scope: Scope) {
  const latest = db
    .select({ position: max(saddleFitting.position).as('latest') })
    .from(saddleFitting)
    .where(eq(saddleFitting.studioId, scope.studioId))
    .groupBy(saddleFitting.bikeId)
    .as('latest_fitting')
  return db
    .select({ bikeId: bike.id, number: bike.number, saddleId: saddleFitting.saddleId })
    .from(saddleFitting)
    .innerJoin(latest, eq(latest.position, saddleFitting.position))
    .innerJoin(bike, eq(bike.id, saddleFitting.bikeId))
    .where(and(isNull(bike.retiredAt), isNotNull(saddleFitting.saddleId)))
    .orderBy(asc(bike.number))
}

/** Writes a model, or changes the one of this id; machines that carry it follow. `sameName`: another has this name. */
export async function saveSaddle(
  db: Database,
  scope: Scope,
  { id, model }: Readonly<{ id: string; model: SaddleModel }>,
  now: Date,
): Promise<Readonly<{ outcome: 'kept' | 'sameName' | 'gone' }>> {
  const { studioId, userId } = scope
  return withTransaction(db, async (tx) => {
    const all = await tx
      .select({ id: saddle.id, studioId: saddle.studioId, model: saddle.model })
      .from(saddle)
      .where(eq(saddle.studioId, studioId))
      .for('update')
    const called = (name: string) => name.trim().toLocaleLowerCase('en')
    if (all.some((one) => one.id !== id && called(one.model.name) === called(model.name)))
      return { outcome: 'sameName' }
    if (!all.some((one) => one.id === id)) {
      const [elsewhere] = await tx.select({ id: saddle.id }).from(saddle).where(eq(saddle.id, id))
      if (elsewhere) return { outcome: 'gone' }
      await tx.insert(saddle).values({ id, studioId, model, createdAt: now, createdBy: userId })
      return { outcome: 'kept' }
    }
    await tx.update(saddle).set({ model }).where(eq(saddle.id, id))
    const on = (await carriers(tx, scope)).filter(({ saddleId }) => saddleId === id)
    for (const { bikeId } of on.toSorted((a, b) => (a.bikeId < b.bikeId ? -1 : 1)))
      await recomputeMachine(tx, scope, bikeId)
    return { outcome: 'kept' }
  })
}

/** `taken`: as many machines as there are pieces carry it already, by their numbers. */
export type FitResult =
  WriteResult | Readonly<{ outcome: 'gone' }> | Readonly<{ outcome: 'taken'; numbers: readonly number[] }>

/**
 * Puts a saddle on a machine, or its type's own again with null. What tape and board said of the old one counts no
 * longer, as for any saddle replaced. The same id with the same content again changes nothing.
 */
export async function fitSaddle(
  db: Database,
  scope: Scope,
  added: Readonly<{ id: string; bikeId: string; saddleId: string | null }>,
  now: Date,
): Promise<FitResult> {
  const { studioId, userId } = scope
  return withTransaction(db, async (tx) => {
    const [model] =
      added.saddleId === null
        ? []
        : await tx
            .select({ model: saddle.model })
            .from(saddle)
            .where(and(eq(saddle.id, added.saddleId), eq(saddle.studioId, studioId)))
            // The model's row is the lock: its pieces are counted by one at a time.
            .for('update')
    if (added.saddleId !== null && !model) return { outcome: 'gone' }
    if (!(await lockMachine(tx, scope, added.bikeId))) return { outcome: 'gone' }
    const { id, studioId: ofStudio, bikeId, saddleId } = saddleFitting
    const stored = async () =>
      (await tx.select({ id, studioId: ofStudio, bikeId, saddleId }).from(saddleFitting).where(eq(id, added.id)))[0]
    const content = { ...added, studioId }
    if (!(await stored()) && model?.model.pieces !== undefined) {
      const others = (await carriers(tx, scope)).filter(
        (one) => one.saddleId === added.saddleId && one.bikeId !== added.bikeId,
      )
      if (others.length >= model.model.pieces) return { outcome: 'taken', numbers: others.map(({ number }) => number) }
    }
    let isNew = false
    const written = await insertOnce(
      async () => {
        await tx.insert(saddleFitting).values({ ...content, createdAt: now, createdBy: userId })
        isNew = true
      },
      stored,
      content,
    )
    if (written.outcome !== 'kept' || !isNew) return written
    await tx.insert(bikeCare).values({
      id: crypto.randomUUID(),
      studioId,
      bikeId: added.bikeId,
      part: 'saddle',
      deed: 'replaced',
      note: model?.model.name ?? '',
      createdAt: now,
      createdBy: userId,
    })
    await recomputeMachine(tx, scope, added.bikeId)
    return written
  })
}

/** What a machine carries and since when, who fitted it; null while it carries its type's own from the beginning. */
export async function fittingOf(
  db: DbExecutor,
  scope: Scope,
  bikeId: string,
): Promise<Readonly<{ saddleId: string | null; at: Date; by: string }> | null> {
  const [row] = await db
    .select({ saddleId: saddleFitting.saddleId, at: saddleFitting.createdAt, by: user.name })
    .from(saddleFitting)
    .innerJoin(user, eq(user.id, saddleFitting.createdBy))
    .where(and(eq(saddleFitting.bikeId, bikeId), eq(saddleFitting.studioId, scope.studioId)))
    .orderBy(desc(saddleFitting.position))
    .limit(1)
  return row ?? null
}
