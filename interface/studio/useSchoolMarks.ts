'use client'
import { useEffect, useState } from 'react'
import type { BikeType } from '@/core/bikes/bike/bike'
import { axesOf } from '@/core/bikes/bike/bike'
import type { Marks } from '@/core/base/conventions'
import { formatLabel, formatMarks } from '@/core/messages/words/labels'
import { SCHOOL_CHOICES } from '@/core/messages/studio/schools'
import type { EarlierSetup } from '@/core/setups/recommend/history/riderHistory'
import type { StartRule } from '@/core/setups/recommend/steps/startRules'
import type { School } from '@/core/base/school/school'
import { requestRecommendation } from '../compute/useRecommendation'

/** Enough samples to place marks; the set-up itself uses more. */
const SAMPLES = 1500

export type SchoolMarks = Readonly<Record<string, string>>
export const choiceKey = (field: string, value: string): string => `${field} ${value}`

/**
 * The marks every choice would set for one rider on one type, all else of the school staying, one after the other as
 * they are worked out; `done` runs from 0 to 1.
 */
export function useSchoolMarks(
  bikeType: BikeType | undefined,
  history: readonly EarlierSetup[] | null,
  school: Partial<School>,
): Readonly<{ marks: SchoolMarks; done: number }> {
  const [state, setState] = useState<{ marks: SchoolMarks; done: number }>({ marks: {}, done: 0 })
  useEffect(() => {
    if (!bikeType || !history) return
    let gone = false
    const all = SCHOOL_CHOICES.flatMap(({ field, choices }) => Object.keys(choices).map((value) => ({ field, value })))
    const work = async () => {
      setState({ marks: {}, done: 0 })
      for (const [i, { field, value }] of all.entries()) {
        const answer = await requestRecommendation({
          bikeType,
          school: { ...school, [field]: value },
          history: [...history],
          evidence: [],
          samples: SAMPLES,
        })
        if (gone) return
        const text =
          field === 'startLandmark'
            ? `seat ${formatLabel(bikeType, 'seatHeight', answer.startRules[value as StartRule].label)}`
            : formatMarks(bikeType, marksOf(bikeType, answer.next.moves, answer.starter?.to))
        setState((last) => ({
          marks: { ...last.marks, [choiceKey(field, value)]: text },
          done: (i + 1) / all.length,
        }))
      }
    }
    work().catch(() => setState((last) => ({ ...last, done: 1 })))
    return () => {
      gone = true
    }
  }, [bikeType, history, school])
  return state
}

/** The marks of a start; a newcomer's, where the school begins them lower. */
function marksOf(
  bikeType: BikeType,
  moves: readonly Readonly<{ axis: keyof Marks; to: string }>[],
  starter: string | undefined,
): Marks {
  const marks: Record<string, string> = {}
  for (const axis of axesOf(bikeType)) {
    const move = moves.find((m) => m.axis === axis)
    if (move) marks[axis] = axis === 'seatHeight' && starter ? starter : move.to
  }
  return marks
}
