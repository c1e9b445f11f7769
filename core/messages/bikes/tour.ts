import { axesOf, type BikeType } from '../../bikes/bike/bike'
import type { BikeEquipment } from '../../bikes/bike/equipment'
import type { AxisName } from '../../base/conventions'
import { positionsOf } from '../../bikes/scale/scale'
import { formatLabel } from '../words/labels'
import { ADJUSTMENT_WORDS } from '../words/adjustments'
import { axisTitle } from '../words/phrases'

/** A part of a type that a newcomer meets, with what it is for; `at` is where the drawing has it. */
export type TourPart = Readonly<{
  at: AxisName | 'pedal' | 'wheel'
  name: string
  text: string
}>

const CLOSED_BY = {
  pin: 'It closes with a pin: turn, pull, move, let it snap in, turn tight.',
  knob: 'It closes with a knob: turn it tight.',
  lever: 'It closes with a lever: press it home.',
} as const

/** The parts of a type in the order of a tour, in its own labels. */
export function tourOf(bikeType: BikeType, closing: BikeEquipment['closing']): TourPart[] {
  return [
    ...axesOf(bikeType).map((axis): TourPart => {
      const positions = positionsOf(bikeType.axes[axis]!.scale)
      const [first, last] = [positions[0], positions[positions.length - 1]].map(({ label }) =>
        formatLabel(bikeType, axis, label),
      )
      const mark =
        axis === 'seatHeight' || axis === 'barHeight' || axis === 'frameHeight'
          ? ' Never above the line on the post.'
          : ''
      return {
        at: axis,
        name: `${axisTitle(bikeType, axis)}, ${first} to ${last}`,
        text: `${ADJUSTMENT_WORDS[axis].what} ${CLOSED_BY[closing[axis] ?? 'knob']} Then shake it.${mark}`,
      }
    }),
    { at: 'pedal', name: 'Pedals', text: 'The ball of the foot over the axle; strap snug, not tight, or click in.' },
    {
      at: 'wheel',
      name: 'Wheel and load',
      text:
        'The wheel turns your feet, also when you stop pushing. Slow it with the load or the stop lever, never with ' +
        'a foot.',
    },
  ]
}
