import { AXES } from '../../base/conventions'
import { axisOf, type BikeType } from '../../bikes/bike/bike'
import { positionsOf } from '../../bikes/scale/scale'
import type { FloorScales } from '../../setups/moves/move'
import { formatLabel } from '../words/labels'

/** The marks of a type as the floor needs them, without its geometry. */
export const floorScales = (bikeType: BikeType): FloorScales =>
  Object.fromEntries(
    AXES.flatMap((axis) => {
      const scale = axisOf(bikeType, axis)?.scale
      if (!scale) return []
      const marks = positionsOf(scale).map(({ label, mm }) => ({ label, text: formatLabel(bikeType, axis, label), mm }))
      return [[axis, marks.sort((a, b) => a.mm - b.mm)]]
    }),
  )
