import { FILE_REFUSAL_TEXT } from '@/core/messages/files'
import { can } from '@/server/accounts/can'
import { currentUser } from '@/server/accounts/session'
import { previewList } from '@/server/files/files'
import { keepUpload } from '@/server/files/uploads'
import { fromHere } from '@/server/http/readJson'

const refused = (why: keyof typeof FILE_REFUSAL_TEXT, status: number) =>
  Response.json({ outcome: 'refused', say: FILE_REFUSAL_TEXT[why] }, { status })

/** `POST /api/files`: a file as it is, kept aside for whoever sent it; answered with what it looks like. */
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
