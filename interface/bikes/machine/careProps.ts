import { intervalOf, type CareState } from '@/core/bikes/care/care'
import { CARE_DEED_TEXT, CARE_TEXT, formatCareState, formatInterval } from '@/core/messages/bikes/care'
import { formatDate } from '@/core/messages/words/dates'
import type { MachinePage } from '@/server/pages/bikes/machine'
import type { CareLine, CareProps } from './CareList'

/** A part in words: how it stands, what seeing to it is, and what it costs to leave it. */
export function careLine(state: CareState, timeZone: string): CareLine {
  const { name, task, leave } = CARE_TEXT[state.part]
  const { part, outcome } = state
  return { part, name, task, leave, outcome, state: formatCareState(state, timeZone) }
}

/** The care of one machine in words, what is due first, and its history. */
export function careProps({ care, intervals, deeds, timeZone, mayManage }: MachinePage): CareProps {
  return {
    mayManage,
    lines: care.map((state) => {
      const interval = intervalOf(state.part, intervals.studio, intervals.own)
      return { ...careLine(state, timeZone), every: interval ? formatInterval(interval) : '', interval: interval ?? {} }
    }),
    own: intervals.own ?? {},
    history: deeds.map(({ id, part, deed, note, createdAt, createdBy }) => ({
      id,
      text: `${CARE_TEXT[part].name} ${CARE_DEED_TEXT[deed]}${note ? `: ${note}` : ''}`,
      when: `${formatDate(createdAt, timeZone)}, ${createdBy}`,
    })),
  }
}
