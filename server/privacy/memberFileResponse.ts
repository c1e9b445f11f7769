import type { Scope } from '../platform/accounts/scope'
import type { DbExecutor } from '../platform/db/connection'
import { memberFile } from './memberFile'
import { memberPdf } from './memberPdf'

/**
 * All that is stored about a member as a download: `data.json` with every row, or `data.pdf` to read. 404 for another
 * name, or where the studio has no such member.
 */
export async function memberFileResponse(
  db: DbExecutor,
  scope: Pick<Scope, 'studioId'>,
  memberId: string,
  name: string,
  now: Date,
): Promise<Response> {
  const missing = () => new Response('There is no such file.', { status: 404 })
  if (name !== 'data.json' && name !== 'data.pdf') return missing()
  const file = await memberFile(db, scope, memberId, now)
  if (!file) return missing()
  const isPdf = name === 'data.pdf'
  const body = isPdf ? await memberPdf(file) : JSON.stringify(file, null, 2)
  return new Response(body as BodyInit, {
    headers: {
      'content-type': isPdf ? 'application/pdf' : 'application/json',
      'content-disposition': `attachment; filename="member-${name}"`,
      'cache-control': 'no-store',
    },
  })
}
