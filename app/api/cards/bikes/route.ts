import { listBikes } from '@/server/bikes/bikes'
import { codesOfBikes, printedCode } from '@/server/bikes/codes'
import { bikeCodes } from '@/server/classes/cards/cards'
import { can } from '@/server/platform/accounts/can'
import { currentUser } from '@/server/platform/accounts/session'
import { database } from '@/server/platform/db/connection'

/** `GET /api/cards/bikes`: a sheet of codes to stick on the machines; each opens its machine to whoever scans it. */
export async function GET(): Promise<Response> {
  const person = await currentUser()
  if (!person) return new Response('Sign in first.', { status: 401 })
  if (!can(person, 'inspectBikes')) return new Response('Your role does not allow it.', { status: 403 })
  const home = process.env.BETTER_AUTH_URL ?? 'http://127.0.0.1'
  const bikes = await listBikes(database(), person)
  const codeOf = await codesOfBikes(
    database(),
    person,
    bikes.map(({ id }) => id),
    new Date(),
  )
  const codes = bikes.map(({ id, number, type }) => ({
    number,
    type: type.name,
    code: printedCode(codeOf.get(id)!),
    address: new URL(`/b/${codeOf.get(id)}`, home).toString(),
  }))
  return new Response((await bikeCodes(codes)) as BodyInit, {
    headers: {
      'content-type': 'application/pdf',
      'content-disposition': 'inline; filename="bike-codes.pdf"',
      'cache-control': 'no-store',
    },
  })
}
