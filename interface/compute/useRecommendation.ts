'use client'
import { useEffect, useRef, useState } from 'react'
import { isErrorResponse, type ErrorResponse } from '@/core/operations/errorResponse'
import type { Recommendation } from '@/core/operations/requests/recommend'
import type { RecommendRequest } from '@/core/setups/recommend/request/request'
import { requestCore } from './requestCore'

const reasonsOf = ({ error }: ErrorResponse): string => error.faults.map((fault) => fault.reason).join('; ')

/** One recommendation, computed in the worker. Rejects where the core refuses the request. */
export async function requestRecommendation(request: RecommendRequest): Promise<Recommendation> {
  const answer = await requestCore('recommend', request)
  if (isErrorResponse(answer)) throw new Error(reasonsOf(answer))
  return answer as Recommendation
}

export type RecommendationState = Readonly<{ answer: Recommendation | null; working: boolean; trouble: string | null }>
type Computed = Readonly<{ of: RecommendRequest | null; answer: Recommendation | null; trouble: string | null }>

/**
 * The recommendation for a request, computed in a worker; the last answer stays until the next is computed. A request
 * that comes meanwhile waits, and of several only the latest is computed.
 */
export function useRecommendation(request: RecommendRequest): RecommendationState {
  const [computed, setComputed] = useState<Computed>({ of: null, answer: null, trouble: null })
  const latest = useRef<RecommendRequest | null>(null)
  const isComputing = useRef(false)
  useEffect(() => {
    latest.current = request
    const computeLatest = async () => {
      if (isComputing.current) return
      isComputing.current = true
      for (let done: RecommendRequest | null = null; latest.current && latest.current !== done;) {
        done = latest.current
        const found = await compute(done)
        if (latest.current === done) setComputed((last) => ({ ...last, ...found }))
      }
      isComputing.current = false
    }
    void computeLatest()
  }, [request])
  // A page that was left starts nothing more.
  useEffect(() => () => void (latest.current = null), [])
  return { answer: computed.answer, working: computed.of !== request, trouble: computed.trouble }
}

/** What to show for a request; where it fails the last answer stays. */
async function compute(request: RecommendRequest): Promise<Partial<Computed>> {
  try {
    const answer = await requestCore('recommend', request)
    if (isErrorResponse(answer)) return { of: request, trouble: reasonsOf(answer) }
    return { of: request, answer: answer as Recommendation, trouble: null }
  } catch {
    return { of: request, trouble: 'the arithmetic stopped; open the page again' }
  }
}
