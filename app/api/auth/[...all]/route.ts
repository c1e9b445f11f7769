import { AUTH_PATHS, auth } from '@/server/platform/accounts/auth'
import { database } from '@/server/platform/db/connection'
import { recordGuesses } from '@/server/privacy/accessLog/record'

const BASE = '/api/auth'
/** Where a secret can be guessed, and the field that names whose it is. */
const GUESSABLE: Readonly<Record<string, 'username' | 'userId'>> = {
  '/sign-in/username': 'username',
  '/sign-in/pin': 'userId',
}

/** The few addresses of the sign-in library that this studio uses; every other does not exist. */
async function handle(request: Request): Promise<Response> {
  const path = new URL(request.url).pathname.slice(BASE.length)
  if (!Object.hasOwn(AUTH_PATHS, path)) return new Response(null, { status: 404 })
  if (AUTH_PATHS[path] !== request.method) return new Response(null, { status: 405 })
  const copy = Object.hasOwn(GUESSABLE, path) ? request.clone() : null
  const response = await auth().handler(request)
  if (copy && response.status === 429) await noteGuesses(copy, GUESSABLE[path])
  return response
}

async function noteGuesses(request: Request, field: string): Promise<void> {
  const account: unknown = (await request.json())?.[field]
  if (typeof account === 'string') await recordGuesses(database(), account, new Date())
}

export { handle as GET, handle as POST }
