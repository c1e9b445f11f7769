'use server'
import { APIError } from 'better-auth/api'
import { headers } from 'next/headers'
import { auth } from '@/server/accounts/auth'

/** Ends the session of whoever asks; whose session has ended already is signed out as well. */
export async function signOut(): Promise<void> {
  try {
    await auth().api.signOut({ headers: await headers() })
  } catch (error) {
    if (!(error instanceof APIError)) throw error
  }
}
