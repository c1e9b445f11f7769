'use server'
import { APIError } from 'better-auth/api'
import { headers } from 'next/headers'
import { redirect } from 'next/navigation'
import { auth } from '@/server/accounts/auth'

export async function signOut(): Promise<never> {
  try {
    await auth().api.signOut({ headers: await headers() })
  } catch (error) {
    if (!(error instanceof APIError)) throw error
  }
  redirect('/sign-in')
}
