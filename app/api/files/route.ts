import { FILE_REFUSAL_TEXT } from '@/core/messages/studio/files'
import { can } from '@/server/platform/accounts/can'
import { currentUser } from '@/server/platform/accounts/session'
import { listTypes } from '@/server/bikes/versions'
import { previewList } from '@/server/files/files'
import { database } from '@/server/platform/db/connection'
import { storeUpload } from '@/server/files/uploads'
import { fromHere } from '@/server/platform/http/readJson'

const refused = (why: keyof typeof FILE_REFUSAL_TEXT, status: number) =>
  Response.json({ outcome: 'refused', say: FILE_REFUSAL_TEXT[why] }, { status })

/** `POST /api/files`: stores a file for its sender and returns what it looks like. */
export async function POST(request: Request): Promise<Response> {
  const person = await currentUser()
  if (!person) return refused('notAllowed', 401)
  if (!can(person, 'manageStudio') || !fromHere(request)) return refused('notAllowed', 403)
  const announced = request.headers.get('content-length')
  const stored = await storeUpload(person, request.body, announced === null ? null : Number(announced))
  if (stored.outcome === 'refused') return refused(stored.why, stored.why === 'tooLarge' ? 413 : 422)
  const { id, kind, bytes } = stored.upload
  if (kind === 'archive') return Response.json({ outcome: 'kept', id, kind, bytes })
  const types = await listTypes(database(), person)
  const preview = await previewList(
    stored.upload,
    types.map(({ bikeType }) => bikeType),
  )
  return typeof preview === 'string'
    ? refused(preview, 422)
    : Response.json({ outcome: 'kept', id, kind, bytes, preview })
}
