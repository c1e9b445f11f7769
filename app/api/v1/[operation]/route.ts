import { faultAnswer } from '@/core/operations/faults'
import { isFault, OPERATION_NAMES, run } from '@/core/operations/operations'
import { whoIsIt } from '@/server/accounts/session'

/** Longest request read, bytes; a set-up of five hundred rows is far below. */
const LONGEST = 1_000_000

/** `POST /api/v1/<operation>`: one JSON request, one JSON answer, for who is signed in. */
export async function POST(request: Request, { params }: { params: Promise<{ operation: string }> }): Promise<Response> {
  if (!(await whoIsIt())) return Response.json({ error: { kind: 'signedOut', faults: [{ pointer: '', reason: 'sign in first' }] } }, { status: 401 })
  const { operation } = await params
  if (!OPERATION_NAMES.includes(operation)) return Response.json(run(operation, null), { status: 404 })
  const text = await request.text()
  if (text.length > LONGEST) return Response.json(faultAnswer('badRequest', [{ pointer: '', reason: 'is too long' }]), { status: 400 })
  let body: unknown
  try {
    body = JSON.parse(text)
  } catch {
    return Response.json(faultAnswer('badJson', [{ pointer: '', reason: 'this is not JSON' }]), { status: 400 })
  }
  const answer = run(operation, body)
  return Response.json(answer, { status: isFault(answer) ? 400 : 200 })
}
