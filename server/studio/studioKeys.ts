import { createHash, createPrivateKey, createPublicKey, generateKeyPairSync, sign, verify } from 'node:crypto'
import { and, asc, eq } from 'drizzle-orm'
import canonicalize from 'canonicalize'
import type { RiderFile, UnsignedRiderFile } from '../../core/riders/riderFile/riderFile'
import type { Scope } from '../platform/accounts/scope'
import type { DbExecutor } from '../platform/db/connection'
import { isDuplicate } from '../platform/db/errors'
import { sealRow } from '../platform/sealing/sealed'
import { knownStudio, studioKey } from './tables'

type OfStudio = Pick<Scope, 'studioId'>

/** A studio whose files are taken as measured; `print` as people compare it. */
export type KnownStudio = Readonly<{ key: string; name: string; print: string; since: Date }>

/** The studio's public key, made on first use: 32 bytes in base64url. */
export async function publicKeyOf(db: DbExecutor, scope: OfStudio, now: Date): Promise<string> {
  return (await keyPairOf(db, scope, now)).publicKey
}

async function keyPairOf(db: DbExecutor, { studioId }: OfStudio, now: Date) {
  const find = async () => (await db.select().from(studioKey).where(eq(studioKey.studioId, studioId)))[0]
  const found = await find()
  if (found) return found
  const { x, d } = generateKeyPairSync('ed25519').privateKey.export({ format: 'jwk' })
  const made = { studioId, publicKey: x!, privateKey: d!, createdAt: now }
  try {
    await db.insert(studioKey).values(sealRow(studioKey, studioId, made))
    return made
  } catch (error) {
    // Another request made one meanwhile.
    if (!isDuplicate(error)) throw error
    return (await find())!
  }
}

/** What is signed: the canonical JSON of a file without its signature (RFC 8785), UTF-8. */
const signedBytes = (file: UnsignedRiderFile): Buffer => Buffer.from(canonicalize(file)!, 'utf8')

/** A file signed by its studio's key (Ed25519, RFC 8032); the file names the key. */
export async function signRiderFile(
  db: DbExecutor,
  scope: OfStudio,
  file: Omit<UnsignedRiderFile, 'studio'> & Readonly<{ studio: Readonly<{ name: string }> }>,
  now: Date,
): Promise<RiderFile> {
  const { publicKey: x, privateKey: d } = await keyPairOf(db, scope, now)
  const unsigned: UnsignedRiderFile = { ...file, studio: { ...file.studio, key: x } }
  const key = createPrivateKey({ key: { kty: 'OKP', crv: 'Ed25519', x, d }, format: 'jwk' })
  return { ...unsigned, signature: sign(null, signedBytes(unsigned), key).toString('base64url') }
}

/** Whether a file is as its studio signed it, by the key it names. */
export function isIntact({ signature, ...file }: RiderFile): boolean {
  try {
    const key = createPublicKey({ key: { kty: 'OKP', crv: 'Ed25519', x: file.studio.key }, format: 'jwk' })
    return verify(null, signedBytes(file), key, Buffer.from(signature, 'base64url'))
  } catch {
    // A key that is no point of the curve, or text that has no canonical form.
    return false
  }
}

/** A key as two people compare it on the telephone: "3F9A 10C2 …", the first 16 bytes of its SHA-256. */
export const printOf = (key: string): string =>
  createHash('sha256')
    .update(Buffer.from(key, 'base64url'))
    .digest('hex')
    .slice(0, 32)
    .toUpperCase()
    .match(/.{4}/g)!
    .join(' ')

/** The studios this one knows, the earliest first. */
export async function listKnownStudios(db: DbExecutor, { studioId }: OfStudio): Promise<KnownStudio[]> {
  const found = await db
    .select()
    .from(knownStudio)
    .where(eq(knownStudio.studioId, studioId))
    .orderBy(asc(knownStudio.createdAt))
  return found.map(({ key, name, createdAt }) => ({ key, name, print: printOf(key), since: createdAt }))
}

/** Whether a key is the studio's own or of one it knows. */
export async function isKnownKey(db: DbExecutor, scope: OfStudio, key: string): Promise<boolean> {
  const [own] = await db
    .select({ key: studioKey.publicKey })
    .from(studioKey)
    .where(and(eq(studioKey.studioId, scope.studioId), eq(studioKey.publicKey, key)))
  return own !== undefined || (await listKnownStudios(db, scope)).some((one) => one.key === key)
}

/** Takes files of a studio as measured from now on; known before, it has the new name. */
export async function knowStudio(
  tx: DbExecutor,
  { studioId, userId }: Scope,
  { key, name }: Readonly<{ key: string; name: string }>,
  now: Date,
): Promise<void> {
  await tx
    .insert(knownStudio)
    .values({ studioId, key, name, createdAt: now, createdBy: userId })
    .onDuplicateKeyUpdate({ set: { name } })
}

/** Takes files of a studio as told from now on. */
export async function forgetStudio(tx: DbExecutor, { studioId }: Scope, key: string): Promise<void> {
  await tx.delete(knownStudio).where(and(eq(knownStudio.studioId, studioId), eq(knownStudio.key, key)))
}
