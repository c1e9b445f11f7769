import { ADJUSTMENTS, type AxisName } from '../../base/adjustments'

/**
 * How an adjustment is spoken of.
 *
 * - `name` within a sentence; `short` in a row of cells; `what` it is for, to a newcomer.
 * - `ways`: what plus and minus along it do; `verbs`: the same as a request.
 * - `move`: how the hand moves it, after its clamp is open.
 * - `onMachine`: how a machine that differs is spoken of: what, then plus and minus.
 */
export type AdjustmentWords = Readonly<{
  name: string
  short: string
  what: string
  ways: readonly [plus: string, minus: string]
  verbs: readonly [plus: string, minus: string]
  move: string
  onMachine: readonly [what: string, plus: string, minus: string]
}>

export const ADJUSTMENT_WORDS: Readonly<Record<AxisName, AdjustmentWords>> = Object.freeze({
  seatHeight: {
    name: 'seat height',
    short: 'Seat ↕',
    what: 'How high you sit; it decides how far the knee bends.',
    ways: ['up', 'down'],
    verbs: ['raise the seat', 'lower the seat'],
    move: 'lift or lower the seat until the mark stands at the edge of the tube',
    onMachine: ['post reads', 'high', 'low'],
  },
  seatSlide: {
    name: 'seat slide',
    short: 'Seat ↔',
    what: 'Where you sit over the pedals; not how far the bars are.',
    ways: ['forward', 'back'],
    verbs: ['slide the saddle forward', 'slide the saddle back'],
    move: 'slide the seat until the mark stands at the edge',
    onMachine: ['slide set', 'far forward', 'far back'],
  },
  barHeight: {
    name: 'bar height',
    short: 'Bars ↕',
    what: 'How upright your back is.',
    ways: ['up', 'down'],
    verbs: ['raise the bars', 'lower the bars'],
    move: 'lift or lower the bars until the mark stands at the edge of the tube',
    onMachine: ['bars read', 'high', 'low'],
  },
  barSlide: {
    name: 'bar slide',
    short: 'Bars ↔',
    what: 'How far you reach.',
    ways: ['away', 'nearer'],
    verbs: ['move the bars away', 'bring the bars nearer'],
    move: 'slide the bars until the mark stands at the edge',
    onMachine: ['bar slide set', 'far forward', 'far back'],
  },
  frameHeight: {
    name: 'frame height',
    short: 'Frame ↕',
    what: 'How high saddle and bars stand together.',
    ways: ['up', 'down'],
    verbs: ['raise the frame', 'lower the frame'],
    move: 'lift or lower the frame with both hands until the mark stands at the edge of the tube',
    onMachine: ['frame reads', 'high', 'low'],
  },
  frameSlide: {
    name: 'frame slide',
    short: 'Frame ↔',
    what: 'Where saddle and bars stand together over the pedals.',
    ways: ['forward', 'back'],
    verbs: ['slide the frame forward', 'slide the frame back'],
    move: 'slide the frame with both hands until the mark stands at the edge',
    onMachine: ['frame set', 'far forward', 'far back'],
  },
  seatExtra: {
    name: 'second seat adjustment',
    short: 'Seat +',
    what: 'A second way to move the saddle.',
    ways: ['up', 'down'],
    verbs: ['move the saddle on by its second adjustment', 'move the saddle back by its second adjustment'],
    move: 'move the seat until the mark stands at the edge',
    onMachine: ['second seat adjustment reads', 'high', 'low'],
  },
  barExtra: {
    name: 'second bar adjustment',
    short: 'Bars +',
    what: 'A second way to move the bars.',
    ways: ['up', 'down'],
    verbs: ['move the bars on by their second adjustment', 'move the bars back by their second adjustment'],
    move: 'move the bars until the mark stands at the edge',
    onMachine: ['second bar adjustment reads', 'high', 'low'],
  },
  crankLength: {
    name: 'crank length',
    short: 'Cranks',
    what: 'How wide the circle of the feet is; a smaller one bends knee and hip less at the top.',
    ways: ['longer', 'shorter'],
    verbs: ['take longer cranks', 'take shorter cranks'],
    move: 'screw each pedal into the hole of that length, both sides alike',
    onMachine: ['cranks are', 'long', 'short'],
  },
  saddleTilt: {
    name: 'saddle tilt',
    short: 'Tilt',
    what: 'How the saddle lies under you, nose up or nose down.',
    ways: ['nose up', 'nose down'],
    verbs: ['tilt the saddle nose up', 'tilt the saddle nose down'],
    move: 'tip the saddle until the mark stands at the edge',
    onMachine: ['saddle lies', 'nose up', 'nose down'],
  },
  barTurn: {
    name: 'bar turn',
    short: 'Bar turn',
    what: 'How the bars lie in their clamp: it brings the grips up and nearer, or down and away.',
    ways: ['up', 'down'],
    verbs: ['turn the bars up', 'turn the bars down'],
    move: 'turn the bars in their clamp until the mark stands at the edge',
    onMachine: ['bars lie turned', 'up', 'down'],
  },
})

/** The arrows beside an adjustment, minus then plus. */
export const arrowsOf = (axis: AxisName): readonly [minus: string, plus: string] =>
  ADJUSTMENTS[axis].upright ? ['▼', '▲'] : ['◀', '▶']
