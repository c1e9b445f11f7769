import { headers } from 'next/headers'
import { notFound } from 'next/navigation'
import { database } from '@/server/db/connection'
import { ownerOf, type LinkOwner } from '@/server/memberPage/links'
import { countMiss, mayView } from '@/server/memberPage/pageLimits'

/** Whose page a link opens; not found where it opens none, or where somebody asks too often. */
export async function ownerOfLink(token: string): Promise<LinkOwner> {
  const peer = (await headers()).get('x-forwarded-for') ?? 'unknown'
  if (!(await mayView(peer))) notFound()
  const owner = await ownerOf(database(), token, new Date())
  if (owner) return owner
  await countMiss(peer)
  notFound()
}
