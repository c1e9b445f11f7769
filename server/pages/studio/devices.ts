import { listRooms } from '../../classes/rooms/rooms'
import type { Scope } from '../../platform/accounts/scope'
import type { DbExecutor } from '../../platform/db/connection'
import { qrSvg } from '../../riders/memberPage/qr'
import { certificateDaysLeft, readAuthority } from '../../studio/trust'
import { listTablets, type SharedTablet } from '../../classes/rooms/tablets'

/** How a device reaches this studio; `fingerprint` of an authority to trust first, `daysLeft` of the certificate. */
export type DevicesPage = Readonly<{
  address: string
  qr: string
  fingerprint: string | null
  daysLeft: number | null
  /** Tablets that people of the studio share. */
  tablets: readonly SharedTablet[]
  rooms: readonly Readonly<{ id: string; name: string }>[]
}>

export async function devicesPage(db: DbExecutor, scope: Scope, now: Date): Promise<DevicesPage> {
  const authority = await readAuthority()
  const home = process.env.BETTER_AUTH_URL ?? 'http://127.0.0.1'
  const address = authority && process.env.PLAIN_PORT ? trustAddress(home, process.env.PLAIN_PORT) : home
  return {
    address,
    qr: await qrSvg(address),
    fingerprint: authority?.fingerprint ?? null,
    daysLeft: await certificateDaysLeft(now),
    tablets: await listTablets(db, scope),
    rooms: (await listRooms(db, scope)).map(({ id, name }) => ({ id, name })),
  }
}

/** Where a device without trust begins: without TLS, at a port of its own. */
function trustAddress(home: string, plainPort: string): string {
  const url = new URL('/trust', home)
  url.protocol = 'http:'
  url.port = plainPort
  return url.toString()
}
