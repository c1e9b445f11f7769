import { formatInspectionState } from '@/core/messages/bikes/machine'
import { formatDate } from '@/core/messages/words/dates'
import { capitalized } from '@/core/messages/words/phrases'
import type { InspectionRound } from '@/server/pages/bikes/inspectionRound'
import { careLine } from './careProps'
import type { InspectionViewProps } from './InspectionView'

/** A round in words; `start` is the number of the bike to begin with, where one is given. */
export const inspectionProps = (
  { studio, timeZone, now, bikes }: InspectionRound,
  start: string | undefined,
): InspectionViewProps => ({
  studio,
  day: formatDate(now, timeZone),
  start: start ? Number(start) : null,
  bikes: bikes.map(({ state, care, ...bike }) => ({
    ...bike,
    care: care.filter(({ outcome }) => outcome !== 'good').map((one) => careLine(one, timeZone)),
    state: capitalized(formatInspectionState(state, timeZone)),
    due: state.outcome === 'due' || state.outcome === 'never',
  })),
})
