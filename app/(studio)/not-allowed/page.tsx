import type { Metadata } from 'next'
import { ErrorPage } from '@/interface/shared/ErrorPage'
import { notAllowedText } from '@/core/messages/actions'
import { requireUser } from '@/server/accounts/session'

export const metadata: Metadata = { title: 'Not for your role' }

/** Where somebody lands who asked for a page that their role does not see. */
export default async function NotAllowedPage() {
  const { role } = await requireUser()
  return <ErrorPage title="Not for your role" text={notAllowedText(role)} />
}
