import { headers } from 'next/headers'
import { notFound } from 'next/navigation'
import { database } from '@/server/platform/db/connection'
import type { LinkOwner } from '@/server/riders/memberPage/links'
import { openFrom } from '@/server/riders/memberPage/pageLimits'

/** Whose page a link opens; not found where it opens none. */
export async function ownerOfLink(token: string): Promise<LinkOwner> {
  const peer = (await headers()).get('x-forwarded-for') ?? 'unknown'
  return (await openFrom(database(), peer, token, 'view', new Date())) ?? notFound()
}
