import type { Metadata } from 'next'
import { headers } from 'next/headers'
import { notFound } from 'next/navigation'
import { MemberPage } from '@/interface/memberPage/MemberPage'
import { database } from '@/server/db/connection'
import { ownerOf } from '@/server/memberPage/links'
import { memberPageData } from '@/server/memberPage/page'
import { countMiss, mayView } from '@/server/memberPage/pageLimits'
import { formatDate } from '@/server/studio/day'

export const metadata: Metadata = { title: 'Your numbers', robots: { index: false, follow: false, nocache: true } }

/** A member's own page behind their private link; nobody signs in. */
export default async function OwnPage({ params }: { params: Promise<{ token: string }> }) {
  const { token } = await params
  const peer = (await headers()).get('x-forwarded-for') ?? 'unknown'
  if (!(await mayView(peer))) notFound()
  const owner = await ownerOf(database(), token, new Date())
  if (!owner) {
    await countMiss(peer)
    notFound()
  }
  const { studio, name, sets, first } = await memberPageData(database(), owner)
  return (
    <MemberPage
      token={token}
      studio={studio.name}
      name={name}
      sets={sets.map(({ at, ...set }) => ({ ...set, date: formatDate(at, studio.timeZone) }))}
      first={first}
    />
  )
}
