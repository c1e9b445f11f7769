'use client'
import { wrap, type Remote } from 'comlink'
import { useEffect, useState } from 'react'
import { isErrorResponse } from '@/core/operations/errorResponse'
import type { Recommendation } from '@/core/operations/recommend'
import type { RecommendRequest } from '@/core/recommend/request'
import type { CoreWorker } from './core.worker'

let worker: Remote<CoreWorker> | null = null
function coreWorker(): Remote<CoreWorker> {
  worker ??= wrap<CoreWorker>(new Worker(new URL('./core.worker.ts', import.meta.url), { type: 'module' }))
  return worker
}

/** Any operation of the core, in the worker; a refusal comes back as a value. */
export const askCore = (operation: string, request: unknown): Promise<object> =>
  coreWorker().dispatch(operation, request)

/** One answer, worked out in the worker. Rejects where the request is refused. */
export async function askRecommendation(request: RecommendRequest): Promise<Recommendation> {
  const answer = await coreWorker().dispatch('recommend', request)
  if (isErrorResponse(answer)) throw new Error(answer.error.faults.map((f) => f.reason).join('; '))
  return answer as Recommendation
}

export type RecommendationState = Readonly<{ answer: Recommendation | null; working: boolean; trouble: string | null }>

/** The recommendation for a request, computed in a worker; the last answer stays while the next one is worked out. */
export function useRecommendation(request: RecommendRequest): RecommendationState {
  const [state, setState] = useState<{
    of: RecommendRequest | null
    answer: Recommendation | null
    trouble: string | null
  }>({
    of: null,
    answer: null,
    trouble: null,
  })
  useEffect(() => {
    let stale = false
    coreWorker()
      .dispatch('recommend', request)
      .then((answer) => {
        if (stale) return
        if (isErrorResponse(answer))
          setState((last) => ({ ...last, of: request, trouble: answer.error.faults.map((f) => f.reason).join('; ') }))
        else setState({ of: request, answer: answer as Recommendation, trouble: null })
      })
      .catch(() => {
        if (!stale)
          setState((last) => ({ ...last, of: request, trouble: 'the arithmetic stopped; open the page again' }))
      })
    return () => {
      stale = true
    }
  }, [request])
  return { answer: state.answer, working: state.of !== request, trouble: state.trouble }
}
