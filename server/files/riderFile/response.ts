import type { Scope } from '../../platform/accounts/scope'
import type { DbExecutor } from '../../platform/db/connection'
import type { LinkOwner } from '../../riders/memberPage/links'
import { qrSvg } from '../../riders/memberPage/qr'
import { makeRiderFile, type FileChoice } from './make'
import { codeTextOf } from './parse'

/** Characters of a code that a phone still reads off another phone: QR version 30 at the least correction. */
export const MAX_CODE_LENGTH = 1732

/** What was asked for: `body=1`, `wish=1`, `limits=<id>,<id>`. */
const choiceOf = (asked: URLSearchParams): FileChoice => ({
  body: asked.get('body') === '1',
  wish: asked.get('wish') === '1',
  limits: (asked.get('limits') ?? '').split(',').filter(Boolean),
})

/**
 * A member's own file as a download: `set-up.json`, or `set-up.svg` with its code. 404 for another name, 413 for a code
 * that would be too dense to be read, 503 where the body could not be computed in time.
 */
export async function riderFileResponse(
  db: DbExecutor,
  { studioId, memberId }: Pick<LinkOwner, 'studioId' | 'memberId'>,
  { file, asked }: Readonly<{ file: string; asked: URLSearchParams }>,
  now: Date,
): Promise<Response> {
  const refused = (text: string, status: number) => new Response(text, { status })
  if (file !== 'set-up.json' && file !== 'set-up.svg') return refused('There is no such file.', 404)
  const scope: Scope = { studioId, userId: '', role: 'desk' }
  const made = await makeRiderFile(db, scope, memberId, choiceOf(asked), now)
  if (made === null) return refused('There is no such file.', 404)
  if (made === 'busy') return refused('The studio’s computer is busy. Try again in a minute.', 503)
  const isCode = file === 'set-up.svg'
  const code = isCode ? codeTextOf(made) : ''
  if (code.length > MAX_CODE_LENGTH) return refused('This is too much for a code.', 413)
  const text = isCode ? await qrSvg(code, 'L') : `${JSON.stringify(made, null, 2)}\n`
  return new Response(text, {
    headers: {
      'content-type': isCode ? 'image/svg+xml' : 'application/json',
      ...(!isCode && { 'content-disposition': 'attachment; filename="set-up.json"' }),
      'cache-control': 'no-store',
    },
  })
}
