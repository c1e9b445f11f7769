import { listBikes } from '@/server/bikes/bikes'
import { bikeCodes } from '@/server/classes/cards/cards'
import { can } from '@/server/platform/accounts/can'
import { currentUser } from '@/server/platform/accounts/session'
import { database } from '@/server/platform/db/connection'

/** `GET /api/cards/bikes`: a sheet of codes to stick on the machines, each opens its machine's page. */
export async function GET(): Promise<Response> {
  const person = await currentUser()
  if (!person) return new Response('Sign in first.', { status: 401 })
  if (!can(person, 'inspectBikes')) return new Response('Your role does not allow it.', { status: 403 })
  const home = process.env.BETTER_AUTH_URL ?? 'http://127.0.0.1'
  const codes = (await listBikes(database(), person)).map(({ id, number, type }) => ({
    number,
    type: type.name,
    address: new URL(`/bikes/${id}`, home).toString(),
  }))
  return new Response((await bikeCodes(codes)) as BodyInit, {
    headers: {
      'content-type': 'application/pdf',
      'content-disposition': 'inline; filename="bike-codes.pdf"',
      'cache-control': 'no-store',
    },
  })
}
