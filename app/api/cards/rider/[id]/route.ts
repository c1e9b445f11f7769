import { CERTAINTY_TEXT, PURPOSE_NAME } from '@/core/messages/register'
import { capitalized } from '@/core/messages/phrases'
import { can } from '@/server/accounts/can'
import { currentUser } from '@/server/accounts/session'
import { walletCards } from '@/server/cards/cards'
import { database } from '@/server/db/connection'
import { findMember } from '@/server/members/members'
import { findLink } from '@/server/memberPage/links'
import { addressOf } from '@/server/memberPage/qr'
import { currentEntries, byDisplayPriority } from '@/server/register/register'
import { formatDate } from '@/server/studio/day'
import { getStudio } from '@/server/studio/studio'

/** `GET /api/cards/rider/<id>`: a card for the wallet, one a set of numbers, as PDF; with the QR code of their link. */
export async function GET(_: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  const person = await currentUser()
  if (!person) return new Response('Sign in first.', { status: 401 })
  if (!can(person, 'seeNumbers')) return new Response('Your role does not allow it.', { status: 403 })
  const { id } = await params
  const db = database()
  const [studio, member] = await Promise.all([getStudio(db, person), findMember(db, person, id)])
  const entries = member ? byDisplayPriority(await currentEntries(db, person, [id])) : []
  if (!member || entries.length === 0)
    return new Response('Nobody here has numbers under this address.', { status: 404 })
  const link = await findLink(db, person, id, new Date())
  const pdf = await walletCards(
    entries.map(({ type, marks, purpose, certainty, sinceAt }) => ({
      studio: studio.name,
      name: member.name,
      bikeType: type,
      marks,
      purpose: purpose === 'usual' ? null : PURPOSE_NAME[purpose],
      sure: capitalized(CERTAINTY_TEXT[certainty]),
      date: formatDate(sinceAt, studio.timeZone),
      address: link && addressOf(link),
    })),
  )
  return new Response(pdf as BodyInit, {
    headers: {
      'content-type': 'application/pdf',
      'content-disposition': 'inline; filename="card.pdf"',
      'cache-control': 'no-store',
    },
  })
}
