import type { Metadata } from 'next'
import { notFound } from 'next/navigation'
import { OwnBike } from '@/interface/riders/memberPage/OwnBike'
import { ownBikePage } from '@/server/pages/riders/ownBike'
import { database } from '@/server/platform/db/connection'
import { seen } from '@/server/privacy/accessLog/seen'
import { mayBeOwnPhone, ownerOfLink } from '../../ownerOfLink'

export const metadata: Metadata = { title: 'Your numbers on this bike', robots: { index: false, follow: false } }

/** A member's numbers on the machine whose code they scanned, behind their private link. */
export default async function OwnBikeRoute({ params }: { params: Promise<{ token: string; code: string }> }) {
  const { token, code } = await params
  const owner = await ownerOfLink(token)
  seen({ studioId: owner.studioId, userId: null }, 'ownPage', owner.memberId)
  const page = (await ownBikePage(database(), owner, code)) ?? notFound()
  return <OwnBike token={token} code={code} page={page} keepsLink={await mayBeOwnPhone()} />
}
