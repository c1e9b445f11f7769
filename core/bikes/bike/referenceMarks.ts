import { AXES, type AxisName } from '../../base/conventions'
import { nearestPosition } from '../scale/scale'
import type { BikeType } from './bike'

/** The mark nearest to each axis' zero, cranks at the type's own: where a type is drawn, and compared with itself. */
export function referenceMarks({ axes, crankMm }: BikeType): Readonly<Partial<Record<AxisName, string>>> {
  return Object.fromEntries(
    AXES.flatMap((name) =>
      axes[name] ? [[name, nearestPosition(axes[name].scale, name === 'crankLength' ? crankMm : 0).label]] : [],
    ),
  )
}
