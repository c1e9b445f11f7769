import { riderFileResponse } from '@/server/files/riderFile/response'
import { database } from '@/server/platform/db/connection'
import { seen } from '@/server/privacy/accessLog/seen'
import { ownerOfLink } from '../../ownerOfLink'

type RouteContext = { params: Promise<{ token: string; file: string }> }

/** `GET /m/<token>/take/set-up.json` or `set-up.svg`: the member's own file, for another studio. */
export async function GET(request: Request, { params }: RouteContext): Promise<Response> {
  const { token, file } = await params
  const owner = await ownerOfLink(token)
  if (owner.opens !== 'everything') return new Response('This link shows the numbers alone.', { status: 403 })
  seen({ studioId: owner.studioId, userId: null }, 'ownSetUp', owner.memberId)
  return riderFileResponse(database(), owner, { file, asked: new URL(request.url).searchParams }, new Date())
}
