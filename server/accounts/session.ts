import { headers } from 'next/headers'
import { redirect } from 'next/navigation'
import { auth } from './auth'

export type SignedIn = Readonly<{ id: string; name: string }>

/** Who is signed in, or null. */
export async function currentUser(): Promise<SignedIn | null> {
  const found = await auth().api.getSession({ headers: await headers() })
  return found ? { id: found.user.id, name: found.user.name } : null
}

/** Who is signed in; anyone else is sent to sign in. For pages and server actions. */
export async function requireUser(): Promise<SignedIn> {
  return (await currentUser()) ?? redirect('/sign-in')
}
