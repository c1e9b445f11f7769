import { createHmac } from 'node:crypto'

const BASE32 = 'ABCDEFGHIJKLMNOPQRSTUVWXYZ234567'

/** Bytes of a base32 text (RFC 4648), without padding. */
function fromBase32(text: string): Buffer {
  const bits = [...text.replace(/[ =]/g, '').toUpperCase()]
    .map((letter) => BASE32.indexOf(letter).toString(2).padStart(5, '0'))
    .join('')
  return Buffer.from((bits.match(/.{8}/g) ?? []).map((byte) => Number.parseInt(byte, 2)))
}

/**
 * The code an authenticator shows at a moment, by RFC 6238 (time-based one-time passwords) over HMAC-SHA-1, written
 * from the standard: what the sign-in library expects is checked against it. `secret`: base32.
 */
export function totp(secret: string, atMs: number, digits = 6): string {
  const counter = Buffer.alloc(8)
  counter.writeBigUInt64BE(BigInt(Math.floor(atMs / 30_000)))
  const hash = createHmac('sha1', fromBase32(secret)).update(counter).digest()
  const offset = hash[hash.length - 1] & 0xf
  return String((hash.readUInt32BE(offset) & 0x7fffffff) % 10 ** digits).padStart(digits, '0')
}
