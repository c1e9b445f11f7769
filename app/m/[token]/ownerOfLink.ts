import { headers } from 'next/headers'
import { notFound } from 'next/navigation'
import { currentSession, pairedTablet } from '@/server/platform/accounts/session'
import { database } from '@/server/platform/db/connection'
import type { LinkOwner } from '@/server/riders/memberPage/links'
import { openFrom } from '@/server/riders/memberPage/pageLimits'

/** Whose page a link opens; not found where it opens none. */
export async function ownerOfLink(token: string): Promise<LinkOwner> {
  const peer = (await headers()).get('x-forwarded-for') ?? 'unknown'
  return (await openFrom(database(), peer, token, 'view', new Date())) ?? notFound()
}

/** Whether this may be the member's own phone: nobody of the studio is signed in on it, nor is it their tablet. */
export const mayBeOwnPhone = async (): Promise<boolean> => !(await currentSession()) && !(await pairedTablet())
