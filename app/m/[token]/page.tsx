import type { Metadata } from 'next'
import { MemberPage } from '@/interface/riders/memberPage/MemberPage'
import { memberPageProps } from '@/interface/riders/memberPage/memberPageProps'
import { memberPageData } from '@/server/pages/riders/memberPage'
import { database } from '@/server/platform/db/connection'
import { mayBeOwnPhone, ownerOfLink } from './ownerOfLink'
import { seen } from '@/server/privacy/accessLog/seen'

export const metadata: Metadata = { title: 'Your numbers', robots: { index: false, follow: false, nocache: true } }

/** A member's own page behind their private link, without sign-in. */
export default async function OwnPage({ params }: { params: Promise<{ token: string }> }) {
  const { token } = await params
  const owner = await ownerOfLink(token)
  seen({ studioId: owner.studioId, userId: null }, 'ownPage', owner.memberId)
  const now = new Date()
  const data = await memberPageData(database(), owner, now)
  return <MemberPage {...memberPageProps(token, now, data)} keepsLink={await mayBeOwnPhone()} />
}
