import { createHash } from 'node:crypto'
import { hash, verify } from '@node-rs/argon2'
import { and, asc, eq, isNotNull, isNull } from 'drizzle-orm'
import type { DbExecutor } from '../db/connection'
import { ARGON, verifyPassword } from './hashing'
import type { Scope } from './scope'
import { account, tablet, user, userSecret } from './tables'

/** A tablet that several people share, as it names itself by its token. */
export type PairedTablet = Readonly<{
  id: string
  studioId: string
  name: string
  roomId: string | null
  idleMinutes: number
}>
export type PinIssue = 'badPin' | 'easyPin'

/** The cookie with a tablet's token, and how long it lasts from the last sign-in, s: as long as browsers allow. */
export const TABLET_COOKIE = 'shared_tablet'
export const TABLET_AGE_S = 400 * 86_400
const TOKEN = /^[\w-]{43}$/

/** What is wrong with a new PIN; null where it is good. */
export function pinIssue(pin: string): PinIssue | null {
  if (!/^\d{6}$/.test(pin)) return 'badPin'
  const steps = new Set([...pin].slice(1).map((digit, i) => Number(digit) - Number(pin[i])))
  // One digit six times, and six in a row upwards or downwards; a pair or a triple over and over.
  const isRow = steps.size === 1 && [0, 1, -1].includes([...steps][0])
  return isRow || pin === pin.slice(0, 2).repeat(3) || pin === pin.slice(0, 3).repeat(2) ? 'easyPin' : null
}

/** A PIN has few guesses: without the installation's secret its hash is of no use to a copied database. */
const hashing = () => ({
  ...ARGON,
  secret: createHash('sha256').update(`pin ${process.env.BETTER_AUTH_SECRET}`).digest(),
})

/** Sets a person's PIN, or removes it where it is empty; `wrong`: the password does not fit. */
export async function setPin(
  db: DbExecutor,
  { userId }: Pick<Scope, 'userId'>,
  { password, pin }: Readonly<{ password: string; pin: string }>,
): Promise<'kept' | 'wrong' | PinIssue> {
  const issue = pin === '' ? null : pinIssue(pin)
  if (issue) return issue
  const [found] = await db
    .select({ password: account.password })
    .from(account)
    .where(and(eq(account.userId, userId), eq(account.providerId, 'credential')))
  if (!found?.password || !(await verifyPassword(found.password, password))) return 'wrong'
  if (pin === '') await removePin(db, userId)
  else {
    const pinHash = await hash(pin, hashing())
    await db.insert(userSecret).values({ userId, pinHash }).onDuplicateKeyUpdate({ set: { pinHash } })
  }
  return 'kept'
}

/** Removes a person's PIN, as where a manager's link lets them in. */
export async function removePin(db: DbExecutor, userId: string): Promise<void> {
  await db.update(userSecret).set({ pinHash: null }).where(eq(userSecret.userId, userId))
}

/** Whether a person has a PIN. */
export async function hasPin(db: DbExecutor, { userId }: Pick<Scope, 'userId'>): Promise<boolean> {
  const [found] = await db.select({ pin: userSecret.pinHash }).from(userSecret).where(eq(userSecret.userId, userId))
  return !!found?.pin
}

/** Whether a person of the tablet's studio has this PIN; false for anybody whose access has ended. */
export async function fitsPin(
  db: DbExecutor,
  { studioId }: Pick<PairedTablet, 'studioId'>,
  userId: string,
  pin: string,
): Promise<boolean> {
  const [found] = await db
    .select({ pinHash: userSecret.pinHash })
    .from(userSecret)
    .innerJoin(user, eq(user.id, userSecret.userId))
    .where(and(eq(user.id, userId), eq(user.studioId, studioId), isNull(user.endedAt)))
  return !!found?.pinHash && verify(found.pinHash, pin, hashing())
}

/** The tablet with this token; null for none, and for one that was unpaired. */
export async function tabletOf(db: DbExecutor, token: string | null | undefined): Promise<PairedTablet | null> {
  if (!token || !TOKEN.test(token)) return null
  const { id, studioId, name, roomId, idleMinutes } = tablet
  const [found] = await db
    .select({ id, studioId, name, roomId, idleMinutes })
    .from(tablet)
    .where(and(eq(tablet.tokenHash, tokenHash(token)), isNull(tablet.endedAt)))
  return found ?? null
}

const tokenHash = (token: string): string => createHash('sha256').update(token).digest('hex')

/** The people who may sign in on a tablet by PIN, by name. */
export const peopleOfTablet = (
  db: DbExecutor,
  { studioId }: Pick<PairedTablet, 'studioId'>,
): Promise<Readonly<{ id: string; name: string }>[]> =>
  db
    .select({ id: user.id, name: user.name })
    .from(user)
    .innerJoin(userSecret, eq(userSecret.userId, user.id))
    .where(and(eq(user.studioId, studioId), isNull(user.endedAt), isNotNull(userSecret.pinHash)))
    .orderBy(asc(user.name), asc(user.id))
