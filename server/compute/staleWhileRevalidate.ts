import { isErrorResponse } from '../../core/operations/errorResponse'
import { compute } from './pool'

/** Long answers may take this long in their thread. */
const TIMEOUT_MS = 120_000

/**
 * Answers of one operation, worked out in a thread and remembered by key (one a studio); nothing of them is stored.
 * Nobody waits, not for what is asked to be gathered either: while an answer `of` something newer is being worked out,
 * the one before serves where `olderServes`, or null.
 */
export function staleWhileRevalidate<Answer extends object>(operation: string, { olderServes = true } = {}) {
  const known = new Map<string, Readonly<{ of: string; answer: Answer | null }>>()
  return (key: string, of: string, request: () => Promise<unknown>): Answer | null => {
    if (known.get(key)?.of !== of) {
      known.set(key, { of, answer: (olderServes && known.get(key)?.answer) || null })
      void work(request)
        .then((answer) => known.get(key)?.of === of && known.set(key, { of, answer }))
        // The database gone, too much to do just now, or a thread that ended: the next page asks again.
        .catch(() => known.get(key)?.of === of && known.delete(key))
    }
    return known.get(key)?.answer ?? null
  }

  async function work(request: () => Promise<unknown>): Promise<Answer> {
    const answer = await compute<Answer>(operation, await request(), TIMEOUT_MS)
    if (isErrorResponse(answer)) throw new Error(answer.error.kind)
    return answer
  }
}
