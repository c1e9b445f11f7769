import { axesOf, axisOf, type Bike, type BikeType } from '../bike/bike'
import { positionsOf, type MarkFault } from '../bike/place'
import { AXES, type Marks } from '../conventions'
import { stopsOf } from '../scale/scale'
import { AXIS_NAME, nearestSaid } from '../words/phrases'
import type { Fault } from './faults'

/** Most stops a scale may have; more is a slip of the keyboard. */
const MOST_STOPS = 400

/** What a schema cannot say of a bike type: scales that contradict themselves. `at` is the type's own pointer. */
export function bikeTypeFaults(bikeType: BikeType, at: string): Fault[] {
  return axesOf(bikeType).flatMap((name) => {
    const { scale } = axisOf(bikeType, name)!
    const here = `${at}/axes/${name}/scale`
    if ('ruler' in scale) {
      const { min, max, resolution, mmPerUnit } = scale.ruler
      if (max < min) return [{ pointer: `${here}/ruler/max`, reason: 'lies below the ruler’s min' }]
      if (mmPerUnit === 0) return [{ pointer: `${here}/ruler/mmPerUnit`, reason: 'must not be 0' }]
      if ((max - min) / resolution > MOST_STOPS)
        return [{ pointer: `${here}/ruler/resolution`, reason: `gives more than ${MOST_STOPS} steps` }]
      return []
    }
    const stops = stopsOf(scale)
    const twice = scale.marks.flatMap((mark, i) =>
      scale.marks.findIndex((m) => m.label === mark.label) < i
        ? [{ pointer: `${here}/marks/${i}/label`, reason: `${mark.label} stands twice on this scale` }]
        : [],
    )
    const sign = stops.length > 1 ? Math.sign(stops[stops.length - 1].mm - stops[0].mm) : 1
    const turning = scale.marks.flatMap((mark, i) =>
      i > 0 && Math.sign(mark.mm - scale.marks[i - 1].mm) !== sign
        ? [{ pointer: `${here}/marks/${i}/mm`, reason: 'does not follow in order along the axis' }]
        : [],
    )
    return [...twice, ...turning]
  })
}

/** Offsets of axes this type does not have. */
export function bikeFaults(bikeType: BikeType, bike: Bike | undefined, at: string): Fault[] {
  const parts = ['offsetsMm', 'sdMm'] as const
  return parts.flatMap((part) =>
    AXES.filter((name) => bike?.[part]?.[name] !== undefined && !axisOf(bikeType, name)).map((name) => ({
      pointer: `${at}/${part}/${name}`,
      reason: `${bikeType.name} has no ${AXIS_NAME[name]}`,
    })),
  )
}

/** Labels the scales do not have, with the nearest, and axes the type lacks. */
export function marksFaults(bikeType: BikeType, marks: Marks | undefined, at: string): Fault[] {
  return positionsOf(bikeType, marks ?? {}).faults.map((fault) => ({
    pointer: `${at}/${fault.axis}`,
    reason: markReason(bikeType, fault),
  }))
}

function markReason(bikeType: BikeType, fault: MarkFault): string {
  if (fault.code === 'noSuchAxis') return `${bikeType.name} has no ${AXIS_NAME[fault.axis]}`
  return `the ${AXIS_NAME[fault.axis]} has no mark ${fault.label}; ${nearestSaid(fault.nearest)}`
}

/** The same marks spelled as the scale spells them; expects marks without faults. */
export function canonicalMarks(bikeType: BikeType, marks: Marks): Marks {
  const { positions } = positionsOf(bikeType, marks)
  return Object.fromEntries(
    AXES.filter((name) => marks[name] !== undefined).map((name) => {
      const stop = stopsOf(axisOf(bikeType, name)!.scale).find((s) => Math.abs(s.mm - positions[name]!) < 1e-9)
      return [name, stop?.label ?? marks[name]]
    }),
  )
}
