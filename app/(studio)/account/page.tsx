import type { Metadata } from 'next'
import { OwnAccount } from '@/interface/frame/accounts/OwnAccount'
import { can } from '@/server/platform/accounts/can'
import { listOwnSessions } from '@/server/platform/accounts/ownSessions'
import { secondFactorOf } from '@/server/platform/accounts/secondFactor'
import { listPasskeys } from '@/server/platform/accounts/passkeys'
import { hasPin } from '@/server/platform/accounts/pin'
import { currentSession, requireOwner } from '@/server/platform/accounts/session'
import { database } from '@/server/platform/db/connection'
import { getStudio } from '@/server/studio/studio'

export const metadata: Metadata = { title: 'Your account' }

export default async function AccountRoute() {
  const person = await requireOwner()
  const token = (await currentSession())?.sessionToken ?? ''
  const sessions = await listOwnSessions(database(), person, token, new Date())
  const secondFactor = await secondFactorOf(database(), person)
  return (
    <OwnAccount
      name={person.name}
      hasEye={can(person, 'setUpRiders')}
      sessions={sessions}
      timeZone={(await getStudio(database(), person)).timeZone}
      secondFactor={{ ...secondFactor, isProven: !person.mustProve }}
      hasPin={await hasPin(database(), person)}
      passkeys={person.idleMinutes ? null : await listPasskeys(database(), person)}
    />
  )
}
