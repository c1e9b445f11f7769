import { and, asc, desc, eq, isNotNull, isNull } from 'drizzle-orm'
import type { BikeType } from '../../core/bike/bike'
import type { Marks } from '../../core/conventions'
import type { Access } from '../db/connection'
import { bike, bikeType, evidence, member, setup } from '../db/schema'

export type Member = Readonly<{ id: string; name: string }>

/** A member with the latest saved numbers, if any, and a set-up still open. */
export type MemberInList = Member &
  Readonly<{ numbers: Readonly<{ marks: Marks; bikeNumber: number; type: BikeType; at: Date }> | null; openSetupId: string | null }>

/** Longest name kept. */
export const LONGEST_NAME = 120

/** All members of a studio by name. */
export async function membersOf(db: Access, studioId: string): Promise<MemberInList[]> {
  const members = await db.select({ id: member.id, name: member.name }).from(member).where(eq(member.studioId, studioId)).orderBy(asc(member.name))
  const saved = await db
    .select({ memberId: setup.memberId, at: setup.finishedAt, row: evidence.row, bikeNumber: bike.number, type: bikeType.definition })
    .from(setup)
    .innerJoin(evidence, eq(evidence.id, setup.numbersId))
    .innerJoin(bike, eq(bike.id, setup.bikeId))
    .innerJoin(bikeType, eq(bikeType.id, setup.typeId))
    .where(and(eq(bike.studioId, studioId), isNotNull(setup.finishedAt)))
    .orderBy(asc(setup.finishedAt))
  const open = await db
    .select({ memberId: setup.memberId, id: setup.id })
    .from(setup)
    .innerJoin(bike, eq(bike.id, setup.bikeId))
    .where(and(eq(bike.studioId, studioId), isNull(setup.finishedAt)))
    .orderBy(asc(setup.startedAt))
  const latest = new Map(saved.map((row) => [row.memberId, row]))
  const openOf = new Map(open.map((row) => [row.memberId, row.id]))
  return members.map((m) => {
    const last = latest.get(m.id)
    const numbers = last?.at ? { marks: last.row.at ?? {}, bikeNumber: last.bikeNumber, type: last.type, at: last.at } : null
    return { ...m, numbers, openSetupId: openOf.get(m.id) ?? null }
  })
}

export async function memberById(db: Access, id: string): Promise<Member | null> {
  const [found] = await db.select({ id: member.id, name: member.name }).from(member).where(eq(member.id, id))
  return found ?? null
}

/** Adds a member; the same id again changes nothing. */
export async function addMember(db: Access, added: Readonly<{ id: string; studioId: string; name: string; at: Date; by: string }>): Promise<void> {
  await db
    .insert(member)
    .values({ id: added.id, studioId: added.studioId, name: added.name, addedAt: added.at, addedBy: added.by })
    .onDuplicateKeyUpdate({ set: { id: added.id } })
}

/** Members of exactly this name, so that one is not added twice unseen. */
export async function membersNamed(db: Access, studioId: string, name: string): Promise<Member[]> {
  return db.select({ id: member.id, name: member.name }).from(member).where(and(eq(member.studioId, studioId), eq(member.name, name))).orderBy(desc(member.addedAt))
}
