import type { Metadata } from 'next'
import { redirect } from 'next/navigation'
import { SignIn } from '@/interface/frame/signIn/SignIn'
import { currentUser } from '@/server/platform/accounts/session'

export const metadata: Metadata = { title: 'Sign in' }

export default async function SignInPage() {
  if (await currentUser()) redirect('/today')
  return <SignIn />
}
