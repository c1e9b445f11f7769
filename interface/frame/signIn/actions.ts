'use server'
import { APIError } from 'better-auth/api'
import { headers } from 'next/headers'
import { auth } from '@/server/platform/accounts/auth'

/** Ends the user's session; an ended session is signed out as well. */
export async function signOut(): Promise<void> {
  try {
    await auth().api.signOut({ headers: await headers() })
  } catch (error) {
    if (!(error instanceof APIError)) throw error
  }
}
