import { qrSvg } from '../../riders/memberPage/qr'
import { certificateDaysLeft, readAuthority } from '../../studio/trust'

/** How a device reaches this studio; `fingerprint` of an authority to trust first, `daysLeft` of the certificate. */
export type DevicesPage = Readonly<{
  address: string
  qr: string
  fingerprint: string | null
  daysLeft: number | null
}>

export async function devicesPage(now: Date): Promise<DevicesPage> {
  const authority = await readAuthority()
  const home = process.env.BETTER_AUTH_URL ?? 'http://127.0.0.1'
  const address = authority && process.env.PLAIN_PORT ? trustAddress(home, process.env.PLAIN_PORT) : home
  return {
    address,
    qr: await qrSvg(address),
    fingerprint: authority?.fingerprint ?? null,
    daysLeft: await certificateDaysLeft(now),
  }
}

/** Where a device without trust begins: without TLS, at a port of its own. */
function trustAddress(home: string, plainPort: string): string {
  const url = new URL('/trust', home)
  url.protocol = 'http:'
  url.port = plainPort
  return url.toString()
}
