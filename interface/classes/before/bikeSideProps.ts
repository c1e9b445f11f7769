import { axesOf } from '@/core/bikes/bike/bike'
import { formatLabel } from '@/core/messages/words/labels'
import { axisTitle } from '@/core/messages/words/phrases'
import type { Seat } from '@/server/classes/seats'
import type { StudioClass } from '@/server/classes/classes'
import type { BikeSideProps } from './BikeSide'

/** A seat in words. */
export const bikeSideProps = (
  { id, title }: StudioClass,
  { bike, rider, marks, remark, elsewhere }: Seat,
): BikeSideProps => ({
  classId: id,
  title,
  number: bike.number,
  type: bike.type.name,
  name: rider?.name ?? null,
  numbers:
    marks &&
    axesOf(bike.type).map((axis) => ({
      scale: axisTitle(bike.type, axis),
      label: marks[axis] === undefined ? '–' : formatLabel(bike.type, axis, marks[axis]),
    })),
  remark: remark ?? (elsewhere ? `Numbers are for ${elsewhere}.` : null),
})
