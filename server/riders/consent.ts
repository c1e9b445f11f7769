import { and, desc, eq, inArray, isNull } from 'drizzle-orm'
import { DEFAULT_CONSENT_WORDING } from '../../core/messages/riders/consent'
import { FIRST_WORDING, type ConsentWay } from '../../core/riders/consent/consent'
import type { Scope } from '../platform/accounts/scope'
import type { DbExecutor } from '../platform/db/connection'
import { consent, consentWording, member } from './tables'

type OfStudio = Pick<Scope, 'studioId'>
/** Who records a consent; null where it is the member's own page. */
export type ConsentBy = OfStudio & Readonly<{ userId: string | null }>

/** A consent in force. */
export type Consent = Readonly<{ way: ConsentWay; wordingVersion: number; createdAt: Date }>
export type Wording = Readonly<{ version: number; wording: string }>

/** The wording in force: the studio's own, or that of the product. */
export async function currentWording(db: DbExecutor, { studioId }: OfStudio): Promise<Wording> {
  const [own] = await db
    .select({ version: consentWording.version, wording: consentWording.wording })
    .from(consentWording)
    .where(eq(consentWording.studioId, studioId))
    .orderBy(desc(consentWording.version))
    .limit(1)
  return own ?? { version: FIRST_WORDING, wording: DEFAULT_CONSENT_WORDING }
}

/** Adds a wording of the studio's own, in force from now on; consents to earlier ones stay good. */
export async function addWording(tx: DbExecutor, { studioId, userId }: Scope, wording: string, now: Date) {
  const current = await currentWording(tx, { studioId })
  if (current.wording === wording) return
  await tx
    .insert(consentWording)
    .values({ studioId, version: current.version + 1, wording, createdAt: now, createdBy: userId })
}

/** Which of these members agreed to health notes. */
export async function whoAgreed(db: DbExecutor, { studioId }: OfStudio, ids: readonly string[]): Promise<Set<string>> {
  if (ids.length === 0) return new Set()
  const found = await db
    .select({ memberId: consent.memberId })
    .from(consent)
    .where(and(inArray(consent.memberId, [...ids]), eq(consent.studioId, studioId), isNull(consent.endedAt)))
  return new Set(found.map(({ memberId }) => memberId))
}

/** A member's consent in force; null without one. */
export async function consentOf(db: DbExecutor, { studioId }: OfStudio, memberId: string): Promise<Consent | null> {
  const [found] = await db
    .select({ way: consent.way, wordingVersion: consent.wordingVersion, createdAt: consent.createdAt })
    .from(consent)
    .where(and(eq(consent.memberId, memberId), eq(consent.studioId, studioId), isNull(consent.endedAt)))
    .orderBy(desc(consent.createdAt))
    .limit(1)
  return found ?? null
}

/** Records that a member agreed to the wording in force, where they had not. False where there is no such member. */
export async function giveConsent(
  tx: DbExecutor,
  { studioId, userId }: ConsentBy,
  memberId: string,
  way: ConsentWay,
  now: Date,
): Promise<boolean> {
  const own = and(eq(member.id, memberId), eq(member.studioId, studioId))
  // Locked, so that two devices at once record one consent.
  const [found] = await tx.select({ id: member.id }).from(member).where(own).for('update')
  if (!found) return false
  if (await consentOf(tx, { studioId }, memberId)) return true
  const { version } = await currentWording(tx, { studioId })
  await tx.insert(consent).values({
    id: crypto.randomUUID(),
    studioId,
    memberId,
    wordingVersion: version,
    way,
    createdAt: now,
    createdBy: userId,
  })
  return true
}

/** Ends a member's consent: nothing more is noted; what is noted stays until it is erased. */
export async function withdrawConsent(tx: DbExecutor, { studioId, userId }: ConsentBy, memberId: string, now: Date) {
  await tx
    .update(consent)
    .set({ endedAt: now, endedBy: userId })
    .where(and(eq(consent.memberId, memberId), eq(consent.studioId, studioId), isNull(consent.endedAt)))
}

/**
 * Whether a health note about a member may be written: they agreed before, or agree now (`agrees`), which is recorded
 * then.
 */
export async function mayNote(
  tx: DbExecutor,
  by: ConsentBy,
  memberId: string,
  agrees: boolean,
  now: Date,
): Promise<boolean> {
  if ((await whoAgreed(tx, by, [memberId])).has(memberId)) return true
  return agrees && giveConsent(tx, by, memberId, by.userId === null ? 'ownPage' : 'spoken', now)
}
