import { errorResponse, isErrorResponse } from '@/core/operations/errorResponse'
import { OPERATION_NAMES, dispatch } from '@/core/operations/dispatch'
import { callerOf } from '@/server/platform/accounts/apiKeys'
import { compute } from '@/server/platform/compute/pool'
import { database } from '@/server/platform/db/connection'
import { readJson } from '@/server/platform/http/readJson'

/** Longest request read, bytes; a set-up of five hundred rows is far below. */
const MAX_BODY_LENGTH = 1_000_000
const STATUS = { badJson: 400, badRequest: 400, unknownOperation: 404, busy: 503 } as const

/**
 * `POST /api/v1/<operation>`: one JSON request, one JSON answer, for who is signed in, or has a key. Computed in
 * a thread of the pool.
 */
export async function POST(
  request: Request,
  { params }: { params: Promise<{ operation: string }> },
): Promise<Response> {
  if (!(await callerOf(database(), request, new Date())))
    return Response.json(
      {
        error: {
          kind: 'signedOut',
          faults: [{ pointer: '', reason: 'sign in first, or send a key that opens something' }],
        },
      },
      { status: 401 },
    )
  const { operation } = await params
  if (!OPERATION_NAMES.includes(operation)) return Response.json(dispatch(operation, null), { status: 404 })
  const read = await readJson(request, MAX_BODY_LENGTH)
  if (read.outcome === 'refused') {
    return Response.json(
      errorResponse(read.status === 400 ? 'badJson' : 'badRequest', [{ pointer: '', reason: read.reason }]),
      { status: read.status },
    )
  }
  const answer = await compute(operation, read.body)
  return Response.json(answer, { status: isErrorResponse(answer) ? STATUS[answer.error.kind] : 200 })
}
