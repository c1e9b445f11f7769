import type { Metadata } from 'next'
import { redirect } from 'next/navigation'
import { SignIn } from '@/interface/frame/signIn/SignIn'
import { hasAccounts } from '@/server/platform/accounts/accounts'
import { database } from '@/server/platform/db/connection'
import { currentUser } from '@/server/platform/accounts/session'

export const metadata: Metadata = { title: 'Sign in' }

export default async function SignInPage() {
  if (await currentUser()) redirect('/today')
  if (!(await hasAccounts(database()))) redirect('/begin')
  return <SignIn />
}
