import type { Metadata } from 'next'
import { ErrorPage } from '@/interface/frame/ErrorPage'
import { notAllowedText } from '@/core/messages/studio/notAllowed'
import { requireUser } from '@/server/platform/accounts/session'

export const metadata: Metadata = { title: 'Not for your role' }

/** The page for a user whose role does not allow the requested page. */
export default async function NotAllowedPage() {
  const { role } = await requireUser()
  return <ErrorPage title="Not for your role" text={notAllowedText(role)} />
}
