import { CERTAINTY_TEXT, PURPOSE_NAME } from '@/core/messages/setups/register'
import { capitalized } from '@/core/messages/words/phrases'
import { can } from '@/server/platform/accounts/can'
import { currentUser } from '@/server/platform/accounts/session'
import { walletCards } from '@/server/classes/cards/cards'
import { database } from '@/server/platform/db/connection'
import { findMember } from '@/server/riders/members/members'
import { findLink } from '@/server/riders/memberPage/links'
import { addressOf } from '@/server/riders/memberPage/qr'
import { currentEntries, byDisplayPriority } from '@/server/setups/register'
import { formatDate } from '@/core/messages/words/dates'
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
