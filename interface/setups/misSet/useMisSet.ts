'use client'
import { useEffect, useMemo, useState } from 'react'
import type { Marks } from '@/core/base/conventions'
import { isErrorResponse } from '@/core/operations/errorResponse'
import type { MisSetRequest, MisSetResponse } from '@/core/operations/requests/misSet'
import { requestCore } from '../../compute/requestCore'
import type { Row } from '../steps/flow'
import { misSetQuestion } from './misSet'

/**
 * What may be mis-set at the bike, worked out in the worker once the advice is (`working`); null where there is nothing
 * to compare, and until it is computed.
 */
export function useMisSet(
  situation: Omit<MisSetRequest, 'marks' | 'evidence'>,
  rows: readonly Row[],
  current: Marks,
  working: boolean,
): MisSetResponse | null {
  const request = useMemo(() => misSetQuestion(situation, rows, current), [situation, rows, current])
  const [found, setFound] = useState<{ of: MisSetRequest; answer: MisSetResponse | null } | null>(null)
  useEffect(() => {
    if (!request || working) return
    let stale = false
    requestCore('misSet', request)
      .then((answer) => {
        if (!stale) setFound({ of: request, answer: isErrorResponse(answer) ? null : (answer as MisSetResponse) })
      })
      .catch(() => undefined)
    return () => {
      stale = true
    }
  }, [request, working])
  return request && found?.of === request ? found.answer : null
}
