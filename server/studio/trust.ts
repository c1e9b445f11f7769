import { X509Certificate } from 'node:crypto'
import { readFile } from 'node:fs/promises'

/** The studio's own certificate authority, as devices are shown it. */
export type Authority = Readonly<{ der: Uint8Array<ArrayBuffer>; /** SHA-256, "3F:9A:…". */ fingerprint: string }>

/** The authority of this installation; null where its certificate is of a public authority, or there is none. */
export async function readAuthority(): Promise<Authority | null> {
  const file = process.env.TLS_AUTHORITY
  if (!file) return null
  const { raw, fingerprint256 } = new X509Certificate(await readFile(file))
  return { der: new Uint8Array(raw), fingerprint: fingerprint256 }
}

/** Days until the certificate of this installation ends, rounded down; null where it speaks no TLS itself. */
export async function certificateDaysLeft(now: Date): Promise<number | null> {
  const file = process.env.TLS_CERTIFICATE
  if (!file) return null
  const { validTo } = new X509Certificate(await readFile(file))
  return Math.floor((new Date(validTo).getTime() - now.getTime()) / 86_400_000)
}
