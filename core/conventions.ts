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
export type Point = Readonly<{ xMm: number; yMm: number }>

/** The four things that move on a studio bike, in the order they are read out. */
export const AXES = ['seatHeight', 'seatSlide', 'barHeight', 'barSlide'] as const
export type AxisName = (typeof AXES)[number]

/** A mark as printed on the bike: "7", "6.5", "C", "-2". */
export type Label = string

/** Which label each axis is set to; an axis may be missing. */
export type Marks = Readonly<Partial<Record<AxisName, Label>>>
