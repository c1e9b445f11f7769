import { database } from '@/server/platform/db/connection'
import { memberFileResponse } from '@/server/privacy/memberFileResponse'
import { ownerOfLink } from '../../ownerOfLink'
import { seen } from '@/server/privacy/accessLog/seen'

type RouteContext = { params: Promise<{ token: string; file: string }> }

/** `GET /m/<token>/data/data.json` or `data.pdf`: everything about the member whose link it is. */
export async function GET(_: Request, { params }: RouteContext): Promise<Response> {
  const { token, file } = await params
  const owner = await ownerOfLink(token)
  // A link that shows the numbers alone gives no notes away either.
  if (owner.opens !== 'everything') return new Response('This link shows the numbers alone.', { status: 403 })
  seen({ studioId: owner.studioId, userId: null }, 'ownFile', owner.memberId)
  return memberFileResponse(database(), owner, owner.memberId, file, new Date())
}
