import { FILE_REFUSAL_TEXT } from '@/core/messages/studio/files'
import { can } from '@/server/platform/accounts/can'
import { currentUser } from '@/server/platform/accounts/session'
import { database } from '@/server/platform/db/connection'
import { checkArchive, importArchive } from '@/server/files/archiveImport'
import { columnsFrom } from '@/server/files/files'
import { checkMembers, importMembers } from '@/server/files/importMembers'
import { recognizeList } from '@/server/files/list'
import { findUpload, onFile, removeUpload } from '@/server/files/uploads'
import { progressResponse } from '@/server/platform/http/progressStream'
import { readJson } from '@/server/platform/http/readJson'

const MAX_BODY_LENGTH = 20_000
const refused = (why: keyof typeof FILE_REFUSAL_TEXT, status: number) =>
  Response.json({ outcome: 'refused', say: FILE_REFUSAL_TEXT[why] }, { status })

type RouteContext = { params: Promise<{ id: string }> }

/**
 * `POST /api/files/<id>` with `{ what: 'check' | 'import', columns }`: reads a stored list or archive through,
 * and reports what it would do, or imports all of it; lines of JSON with progress, the result last.
 */
export async function POST(request: Request, { params }: RouteContext): Promise<Response> {
  const person = await currentUser()
  if (!person) return refused('notAllowed', 401)
  if (!can(person, 'manageStudio')) return refused('notAllowed', 403)
  const read = await readJson(request, MAX_BODY_LENGTH)
  if (read.outcome === 'refused')
    return Response.json({ outcome: 'refused', say: read.reason }, { status: read.status })
  const { id } = await params
  const upload = await findUpload(person, id)
  if (!upload) return refused('gone', 404)
  const { what, columns: columnsGiven } = (read.body ?? {}) as { what?: unknown; columns?: unknown }
  if (upload.kind === 'archive')
    return progressResponse(request, async (progress, signal) => {
      const work = what === 'import' ? importArchive : checkArchive
      const result = await onFile(() => work(database(), person, { upload, progress, signal }))
      if (result.outcome === 'kept') await removeUpload(person, id)
      return result
    })
  const columns = columnsFrom(columnsGiven)
  if (typeof columns === 'string') return refused(columns, 422)
  const format = await recognizeList(upload.path).catch(() => null)
  if (!format) return refused('gone', 404)
  const fileRequest = { upload, columns, format }
  return progressResponse(request, async (progress, signal) => {
    const work = what === 'import' ? importMembers : checkMembers
    const result = await onFile(() => work(database(), person, fileRequest, new Date(), progress, signal))
    if (result.outcome === 'kept') await removeUpload(person, id)
    return result
  })
}

/** `DELETE /api/files/<id>`: throws a file away that was chosen and not brought in. */
export async function DELETE(_: Request, { params }: RouteContext): Promise<Response> {
  const person = await currentUser()
  if (!person) return refused('notAllowed', 401)
  await removeUpload(person, (await params).id)
  return new Response(null, { status: 204 })
}
