'use client'
import { useEffect, useState } from 'react'
import type { BikeType } from '@/core/bikes/bike/bike'
import { isErrorResponse } from '@/core/operations/errorResponse'
import type { TranslateRequest, TranslateResponse } from '@/core/operations/requests/translate'
import { requestCore } from '../../compute/requestCore'

/** Numbers a rider has, and what was read of them where this person may see it. */
export type Numbers = Pick<TranslateRequest, 'from' | 'school' | 'evidence' | 'lengths'>

/**
 * A rider's numbers on each of some other types, worked out in the worker one after the other; a type is absent until
 * it is, and where its own description is refused.
 */
export function useTranslations(
  numbers: Numbers,
  types: readonly BikeType[],
): Readonly<Record<string, TranslateResponse>> {
  const [found, setFound] = useState<Readonly<Record<string, TranslateResponse>>>({})
  useEffect(() => {
    let stale = false
    async function work() {
      for (const bikeType of types) {
        const answer = await requestCore('translate', { ...numbers, to: { bikeType } })
        if (stale) return
        if (!isErrorResponse(answer)) setFound((all) => ({ ...all, [bikeType.name]: answer as TranslateResponse }))
      }
    }
    work().catch(() => undefined)
    return () => {
      stale = true
    }
  }, [numbers, types])
  return found
}
