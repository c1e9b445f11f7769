import type { Metadata } from 'next'
import { Invited } from '@/interface/frame/accounts/Invited'
import { database } from '@/server/platform/db/connection'
import { findInvitation } from '@/server/studio/invitations'

export const metadata: Metadata = { title: 'Invitation', robots: { index: false, follow: false, nocache: true } }

/** Behind a one-time link: name and password for a new account, or a new password. */
export default async function InvitedPage({ params }: { params: Promise<{ token: string }> }) {
  const { token } = await params
  return <Invited token={token} found={await findInvitation(database(), token, new Date())} />
}
