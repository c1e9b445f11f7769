import { rolesWithSecondFactor } from '../../platform/accounts/secondFactor'
import type { Scope } from '../../platform/accounts/scope'
import type { DbExecutor } from '../../platform/db/connection'
import { listKeys, type StoredKey } from '../../platform/accounts/apiKeys'
import type { Role } from '../../platform/db/roles'
import { qrSvg } from '../../riders/memberPage/qr'
import { listInvitations, type OpenInvitation } from '../../studio/invitations'
import { listEverybody, type ManagedPerson } from '../../studio/people'
import { getStudio } from '../../studio/studio'
import { timeZones, type StudioFacts } from '../../studio/studioFacts'

/** Who works in the studio, the links that are open, and what the studio is called. */
export type PeoplePage = Readonly<{
  /** The person who looks. */
  me: string
  facts: StudioFacts
  people: readonly ManagedPerson[]
  invitations: readonly (OpenInvitation & Readonly<{ address: string; qr: string }>)[]
  zones: readonly string[]
  /** Roles that must have a second factor. */
  secondFactorFor: readonly Role[]
  /** Keys of other programs. */
  keys: readonly StoredKey[]
}>

/** Where an invitation leads, on this installation. */
const addressOfInvitation = ({ token }: OpenInvitation): string =>
  new URL(`/invited/${token}`, process.env.BETTER_AUTH_URL ?? 'http://127.0.0.1').toString()

export async function peoplePage(db: DbExecutor, scope: Scope, now: Date): Promise<PeoplePage> {
  const { name, place, timeZone } = await getStudio(db, scope)
  const invitations = (await listInvitations(db, scope, now)).map(async (one) => {
    const address = addressOfInvitation(one)
    return { ...one, address, qr: await qrSvg(address) }
  })
  return {
    me: scope.userId,
    facts: { name, place, timeZone },
    people: await listEverybody(db, scope),
    invitations: await Promise.all(invitations),
    zones: timeZones(),
    keys: await listKeys(db, scope),
    secondFactorFor: await rolesWithSecondFactor(db, scope),
  }
}
