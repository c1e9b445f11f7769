import { Type, type TSchema } from '@sinclair/typebox'
import { AXES, type AxisName } from './adjustments'
import { between, closed, refTo, type Plain } from './schema'

export { AXES, type AxisName }

/**
 * Axes, origin, signs and zero angles, written down once.
 *
 * - Origin: centre of the crank axle. x forward (toward the bars), y up. The floor lies at y = −axleHeightMm.
 * - Lengths are millimetres, angles degrees. The unit is in the name: `…Mm`, `…Deg`, `…Chance`.
 * - Crank angle c: 0 at the top, 90 forward and level, 180 straight down; pedal axle = crankMm · (sin c, cos c).
 * - Axis direction: anticlockwise from +x; 90 is straight up, 107 a seat post leaning back by 17°.
 * - Foot pitch: heel up is plus. Knee flexion: 0 is a straight leg. Plumb offset: plus is knee ahead of the pedal axle.
 * - Setback: plus is the nose behind the axle. Saddle tilt: minus is nose down.
 */
export const lengthMmSchema = between(-5000, 5000)
export const pointSchema = closed({ xMm: lengthMmSchema, yMm: lengthMmSchema })
export type Point = Plain<typeof pointSchema>
export const pointRef = refTo<typeof pointSchema>('point')

/** One field for each axis. */
export const perAxis = <S extends TSchema>(schema: S): Record<AxisName, S> =>
  Object.fromEntries(AXES.map((axis) => [axis, schema])) as Record<AxisName, S>

/** A mark as printed on the bike: "7", "6.5", "C", "-2". */
export const labelSchema = Type.String({ minLength: 1, maxLength: 20 })
export type Label = string

/** Which label each axis is set to; an axis may be missing. */
export const marksSchema = closed(perAxis(Type.Optional(labelSchema)))
export type Marks = Plain<typeof marksSchema>

/** Whether two sets of marks agree on all of these axes; missing agrees with missing. */
export const agreeOn = (axes: readonly AxisName[], a: Marks, b: Marks): boolean =>
  axes.every((axis) => a[axis] === b[axis])

/** The axes whose mark differs between two sets of marks, in the order of `AXES`. */
export const movedAxes = (before: Marks, now: Marks): AxisName[] => AXES.filter((axis) => before[axis] !== now[axis])
export const marksRef = refTo<typeof marksSchema>('marks')
