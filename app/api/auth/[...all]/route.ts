import { AUTH_PATHS, auth } from '@/server/platform/accounts/auth'

const BASE = '/api/auth'

/** The few addresses of the sign-in library that this studio uses; every other does not exist. */
async function handle(request: Request): Promise<Response> {
  const path = new URL(request.url).pathname.slice(BASE.length)
  if (!Object.hasOwn(AUTH_PATHS, path)) return new Response(null, { status: 404 })
  if (AUTH_PATHS[path] !== request.method) return new Response(null, { status: 405 })
  return auth().handler(request)
}

export { handle as GET, handle as POST }
