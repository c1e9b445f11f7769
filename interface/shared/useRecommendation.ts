'use client'
import { wrap, type Remote } from 'comlink'
import { useEffect, useState } from 'react'
import { isFault, type Recommendation } from '@/core/operations/operations'
import type { FitRequest } from '@/core/recommend/request'
import type { FitDoor } from './fit.worker'

let door: Remote<FitDoor> | null = null
function theDoor(): Remote<FitDoor> {
  door ??= wrap<FitDoor>(new Worker(new URL('./fit.worker.ts', import.meta.url), { type: 'module' }))
  return door
}

export type Answered = Readonly<{ answer: Recommendation | null; working: boolean; trouble: string | null }>

/** The recommendation for a request, computed in a worker; the last answer stays while the next one is worked out. */
export function useRecommendation(request: FitRequest): Answered {
  const [state, setState] = useState<{ of: FitRequest | null; answer: Recommendation | null; trouble: string | null }>({
    of: null,
    answer: null,
    trouble: null,
  })
  useEffect(() => {
    let stale = false
    theDoor()
      .run('recommend', request)
      .then((answer) => {
        if (stale) return
        if (isFault(answer))
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
