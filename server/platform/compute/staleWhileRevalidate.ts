import { isErrorResponse } from '../../../core/operations/errorResponse'
import { compute } from './pool'

/** Long answers may take this long in their thread. */
const TIMEOUT_MS = 120_000

/**
 * Answers of one operation, computed in a thread and cached in memory by key (one per studio). Never waits, neither for
 * the computation nor for building the request: while the answer for a newer version `of` is computed, returns the
 * earlier answer where `olderServes`, else null.
 */
export function staleWhileRevalidate<Answer extends object>(operation: string, { olderServes = true } = {}) {
  const cache = new Map<string, Readonly<{ of: string; answer: Answer | null }>>()
  return (key: string, of: string, request: () => Promise<unknown>): Answer | null => {
    if (cache.get(key)?.of !== of) {
      cache.set(key, { of, answer: (olderServes && cache.get(key)?.answer) || null })
      void work(request)
        .then((answer) => cache.get(key)?.of === of && cache.set(key, { of, answer }))
        // Database down, queue full or thread ended: the next page view retries.
        .catch(() => cache.get(key)?.of === of && cache.delete(key))
    }
    return cache.get(key)?.answer ?? null
  }

  async function work(request: () => Promise<unknown>): Promise<Answer> {
    const answer = await compute<Answer>(operation, await request(), TIMEOUT_MS)
    if (isErrorResponse(answer)) throw new Error(answer.error.kind)
    return answer
  }
}
