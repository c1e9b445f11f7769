/**
 * The one place where an adjustment is defined: what can move on a studio bike, what it carries, and how far a hand
 * moves it. Words are in `core/messages/words/adjustments.ts`. Without a schema library: the class floor loads it.
 */

/** In the order they are read out: the common four, then what some machines have beside them. */
export const AXES = [
  'seatHeight',
  'seatSlide',
  'barHeight',
  'barSlide',
  'frameHeight',
  'frameSlide',
  'seatExtra',
  'barExtra',
  'crankLength',
  'saddleTilt',
  'barTurn',
] as const
export type AxisName = (typeof AXES)[number]

/** What an adjustment carries. `frame` is saddle and bars together; what carries the bars leaves the saddle. */
export type Carries = 'saddle' | 'bars' | 'frame' | 'cranks' | 'saddleTilt' | 'barTurn'

/** Checks whose reading a move makes stale. */
export type DisturbedCheck = 'knee' | 'plumb' | 'reach' | 'elbows' | 'back' | 'clearance'

/**
 * - `carries` says what its millimetres mean: the way along its direction of what it carries. Of the cranks they are
 *   the length itself; of the saddle's tilt the rise of the nose above the seat point; of the bars' turn the way of
 *   the grip.
 * - `upright`: drawn and spoken of as up and down; else forward and back.
 * - `largeMm`, `smallMm`, `mostMm`: a step called large, a step without a reading that gives its size, and the largest
 *   at once (common practice, no source, for the seat; the rest ours).
 * - `alone`: how sure and how near a mark must be for a rider to try it. Fore-aft and the bars are a mild thing to
 *   experiment with, seat height is not; 5 to 10 mm on the seat are already big (common practice, no source; the
 *   chances are ours). Frame, cranks and tilt are no marks to try alone.
 * - `disturbs`: what should be looked at again: the saddle carries the leg and the reach, the bars the arms, the back
 *   and the knees of a standing rider (common practice, no source).
 */
export type Adjustment = Readonly<{
  carries: Carries
  upright: boolean
  largeMm: number
  smallMm: number
  mostMm: number
  alone: Readonly<{ chance: number; mm: number }> | null
  disturbs: readonly DisturbedCheck[]
}>

export const ADJUSTMENTS: Readonly<Record<AxisName, Adjustment>> = Object.freeze({
  seatHeight: {
    carries: 'saddle',
    upright: true,
    largeMm: 5,
    smallMm: 5,
    mostMm: 20,
    alone: { chance: 0.85, mm: 8 },
    disturbs: ['knee', 'reach'],
  },
  seatSlide: {
    carries: 'saddle',
    upright: false,
    largeMm: 15,
    smallMm: 5,
    mostMm: 15,
    alone: { chance: 0.75, mm: 12 },
    disturbs: ['plumb', 'knee', 'reach'],
  },
  barHeight: {
    carries: 'bars',
    upright: true,
    largeMm: 20,
    smallMm: 20,
    mostMm: 20,
    alone: { chance: 0.75, mm: 45 },
    disturbs: ['elbows', 'back', 'clearance'],
  },
  barSlide: {
    carries: 'bars',
    upright: false,
    largeMm: 20,
    smallMm: 10,
    mostMm: 20,
    alone: { chance: 0.75, mm: 25 },
    disturbs: ['reach', 'elbows', 'clearance'],
  },
  frameHeight: {
    carries: 'frame',
    upright: true,
    largeMm: 5,
    smallMm: 5,
    mostMm: 20,
    alone: null,
    disturbs: ['knee', 'clearance'],
  },
  frameSlide: {
    carries: 'frame',
    upright: false,
    largeMm: 15,
    smallMm: 5,
    mostMm: 15,
    alone: null,
    disturbs: ['plumb', 'knee', 'clearance'],
  },
  seatExtra: {
    carries: 'saddle',
    upright: true,
    largeMm: 5,
    smallMm: 5,
    mostMm: 20,
    alone: null,
    disturbs: ['knee', 'plumb', 'reach'],
  },
  barExtra: {
    carries: 'bars',
    upright: true,
    largeMm: 20,
    smallMm: 20,
    mostMm: 20,
    alone: { chance: 0.75, mm: 25 },
    disturbs: ['reach', 'elbows', 'back', 'clearance'],
  },
  crankLength: {
    carries: 'cranks',
    upright: false,
    largeMm: 5,
    smallMm: 5,
    mostMm: 10,
    alone: null,
    disturbs: ['knee', 'plumb'],
  },
  saddleTilt: {
    carries: 'saddleTilt',
    upright: true,
    largeMm: 3,
    smallMm: 3,
    mostMm: 5,
    alone: null,
    disturbs: ['back'],
  },
  barTurn: {
    carries: 'barTurn',
    upright: true,
    largeMm: 20,
    smallMm: 10,
    mostMm: 20,
    alone: { chance: 0.75, mm: 25 },
    disturbs: ['reach', 'elbows', 'clearance'],
  },
} as const)

/** The axes every studio bike may have; the rest are read as further ones. */
export const COMMON_AXES = ['seatHeight', 'seatSlide', 'barHeight', 'barSlide'] as const
export type CommonAxis = (typeof COMMON_AXES)[number]
export const isCommon = (axis: AxisName): axis is CommonAxis => (COMMON_AXES as readonly string[]).includes(axis)
/** What some machines have beside the common four. */
export const FURTHER_AXES: readonly AxisName[] = AXES.filter((axis) => !isCommon(axis))

/** The axes that carry the seat point, and those that carry the grip, in the order of `AXES`. */
export const SEAT_AXES: readonly AxisName[] = AXES.filter((axis) =>
  ['saddle', 'frame'].includes(ADJUSTMENTS[axis].carries),
)
export const GRIP_AXES: readonly AxisName[] = AXES.filter((axis) =>
  ['bars', 'frame', 'barTurn'].includes(ADJUSTMENTS[axis].carries),
)
/** The axes on which the leg depends: those of the seat point, and the cranks. */
export const LEG_AXES: readonly AxisName[] = [...SEAT_AXES, 'crankLength']
