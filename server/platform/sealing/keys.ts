import { createCipheriv, createDecipheriv, createHash, hkdfSync, randomBytes } from 'node:crypto'

/** Thrown where a sealed value cannot be read: the key is not here, or the text was changed. */
export class SealError extends Error {}

/** A secret from outside the database; `id` names it in what it sealed. */
type Secret = Readonly<{ id: string; text: string }>

/** The start of every sealed text; the number is that of the format. */
const FORMAT = 's1'
const IV_BYTES = 12
const TAG_BYTES = 16
const KEY_BYTES = 32

/**
 * The secrets of `HEALTH_KEY`, separated by commas: the first seals, the others only open what was sealed before a
 * rotation. Throws where there is none.
 */
function secrets(): readonly Secret[] {
  const texts = (process.env.HEALTH_KEY ?? '').split(',').filter((text) => text !== '')
  if (texts.length === 0) throw new SealError('HEALTH_KEY is not set: health words can be neither read nor written')
  return texts.map((text) => ({ id: createHash('sha256').update(text).digest('hex').slice(0, 8), text }))
}

const derived = new Map<string, Buffer>()

/** The data key of one studio under one secret (HKDF-SHA256, RFC 5869): 32 bytes. */
function dataKey(secret: Secret, studioId: string): Buffer {
  const name = `${secret.id} ${studioId}`
  const known = derived.get(name)
  if (known) return known
  const key = Buffer.from(hkdfSync('sha256', secret.text, studioId, 'health words', KEY_BYTES))
  derived.set(name, key)
  return key
}

/**
 * A value as text that only the studio's key opens, and only in the column it was sealed for (AES-256-GCM, NIST
 * SP 800-38D): `s1.<secret>.<studio>.<iv, text and tag in base64url>`.
 */
export function sealText(studioId: string, column: string, value: string): string {
  const [secret] = secrets()
  const iv = randomBytes(IV_BYTES)
  const cipher = createCipheriv('aes-256-gcm', dataKey(secret, studioId), iv).setAAD(Buffer.from(column))
  const bytes = Buffer.concat([iv, cipher.update(value, 'utf8'), cipher.final(), cipher.getAuthTag()])
  return `${FORMAT}.${secret.id}.${studioId}.${bytes.toString('base64url')}`
}

/** What `sealText` sealed for this column. Throws `SealError` where its secret is not here or the text was changed. */
export function openText(column: string, sealed: string): string {
  const [format, secretId, studioId, text] = sealed.split('.')
  if (format !== FORMAT || !text) throw new SealError(`${column} holds a value that is not sealed`)
  const secret = secrets().find(({ id }) => id === secretId)
  if (!secret) throw new SealError(`${column} was sealed with key ${secretId}, which is not here`)
  const bytes = Buffer.from(text, 'base64url')
  try {
    const decipher = createDecipheriv('aes-256-gcm', dataKey(secret, studioId), bytes.subarray(0, IV_BYTES))
    decipher.setAAD(Buffer.from(column)).setAuthTag(bytes.subarray(-TAG_BYTES))
    return decipher.update(bytes.subarray(IV_BYTES, -TAG_BYTES), undefined, 'utf8') + decipher.final('utf8')
  } catch (error) {
    throw new SealError(`${column} holds a sealed value that was changed`, { cause: error })
  }
}

/** The start of every text sealed with the secret in force. */
export const sealedNow = (): string => `${FORMAT}.${secrets()[0].id}.`
/** The starts of the texts that can be opened. */
export const readableStarts = (): readonly string[] => secrets().map(({ id }) => `${FORMAT}.${id}.`)
