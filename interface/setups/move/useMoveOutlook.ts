'use client'
import { useEffect, useState } from 'react'
import type { AxisName, Label } from '@/core/base/conventions'
import type { MoveOutlook } from '@/server/pages/setups/movable'
import { query } from '../../commands/command'

export type Outlook = MoveOutlook

/** Without an answer for so long the move is decided without it, ms. */
const PATIENCE_MS = 4000

/**
 * Outlook of one axis at the marks above and below. `outlook` is null before the first answer, without a network, and
 * for a rider without earlier set-ups. An answer for other marks replaces it.
 */
export function useMoveOutlook(
  memberId: string,
  bikeId: string,
  axis: AxisName,
  up: Label | null,
  down: Label | null,
): Readonly<{ outlook: Outlook | null; isAsking: boolean }> {
  const of = [axis, up, down].join(' ')
  const [answer, setAnswer] = useState<Readonly<{ of: string; outlook: Outlook | null }> | null>(null)
  useEffect(() => {
    let isLeft = false
    const settle = (outlook: Outlook | null) => {
      if (!isLeft) setAnswer((before) => (before?.of === of ? before : { of, outlook }))
    }
    const timer = setTimeout(() => settle(null), PATIENCE_MS)
    const to = [up, down].filter((label) => label !== null)
    query('register.outlookOfMove', { memberId, bikeId, axis, to }).then(
      (found) => settle(found.outcome === 'found' ? found.outlook : null),
      () => settle(null),
    )
    return () => {
      isLeft = true
      clearTimeout(timer)
    }
  }, [memberId, bikeId, axis, up, down, of])
  return { outlook: answer?.outlook ?? null, isAsking: answer?.of !== of }
}
