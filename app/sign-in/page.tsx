import type { Metadata } from 'next'
import { redirect } from 'next/navigation'
import { SignInPage } from '@/interface/frame/signIn/SignInPage'
import { signInPage } from '@/server/pages/studio/signIn'
import { hasAccounts } from '@/server/platform/accounts/accounts'
import { currentUser, pairedTablet } from '@/server/platform/accounts/session'
import { database } from '@/server/platform/db/connection'

export const metadata: Metadata = { title: 'Sign in' }

export default async function SignInRoute({ searchParams }: { searchParams: Promise<{ to?: string }> }) {
  const { to } = await searchParams
  if (await currentUser()) redirect('/today')
  if (!(await hasAccounts(database()))) redirect('/begin')
  return <SignInPage {...await signInPage(database(), await pairedTablet(), to)} />
}
