import { FILE_REFUSAL_TEXT } from '@/core/messages/studio/files'
import { can } from '@/server/platform/accounts/can'
import { currentUser } from '@/server/platform/accounts/session'
import { previewList } from '@/server/files/files'
import { keepUpload } from '@/server/files/uploads'
import { fromHere } from '@/server/platform/http/readJson'

const refused = (why: keyof typeof FILE_REFUSAL_TEXT, status: number) =>
  Response.json({ outcome: 'refused', say: FILE_REFUSAL_TEXT[why] }, { status })

/** `POST /api/files`: stores a file for its sender and returns what it looks like. */
export async function POST(request: Request): Promise<Response> {
  const person = await currentUser()
  if (!person) return refused('notAllowed', 401)
  if (!can(person, 'manageStudio') || !fromHere(request)) return refused('notAllowed', 403)
  const announced = request.headers.get('content-length')
  const kept = await keepUpload(person, request.body, announced === null ? null : Number(announced))
  if (kept.outcome === 'refused') return refused(kept.why, kept.why === 'tooLarge' ? 413 : 422)
  const { id, kind, bytes } = kept.upload
  if (kind === 'archive') return Response.json({ outcome: 'kept', id, kind, bytes })
  const preview = await previewList(kept.upload)
  return typeof preview === 'string'
    ? refused(preview, 422)
    : Response.json({ outcome: 'kept', id, kind, bytes, preview })
}
