/**
 * Numbers carried from each demo type to each other, for 500 seeded riders a pair: by `translate`, by copying labels as
 * far as they exist there, and by the same share of each scale. `npm run bench:translate` writes the table to docs/.
 */
import { writeFileSync } from 'node:fs'
import { axesOf, axisOf, bottomCrankDeg, type BikeType } from '../../core/bikes/bike/bike'
import { axisPositions, contactPoints } from '../../core/bikes/bike/contactPoints'
import type { AxisName, Marks } from '../../core/base/conventions'
import { bottomFlexionDeg, prepareLeg } from '../../core/riders/kinematics/leg'
import { createRng } from '../../core/base/rng'
import { DEFAULT_SOLE_MM } from '../../core/riders/rider/anthropometry'
import { findPosition, nearestPosition, positionsOf } from '../../core/bikes/scale/scale'
import { drawRider, POPULATIONS } from '../../core/simulated/simulatedRider'
import { farthestPedalMm } from '../../core/setups/translate/contactGeometry'
import { kneeChangeDeg, translateMarks } from '../../core/setups/translate/translate'
import { TYPES } from '../netloftHall'

const RIDERS = 500
const types = Object.values(TYPES)
type Way = 'translate' | 'copied labels' | 'same share of the scale'
const WAYS: readonly Way[] = ['translate', 'copied labels', 'same share of the scale']

/** Labels as they are, where that scale has them; else its nearest in number, else its middle. */
function copied(to: BikeType, marks: Marks): Marks {
  return perAxis(to, (axis) => {
    const { scale } = axisOf(to, axis)!
    const label = marks[axis]
    const found = label === undefined ? null : findPosition(scale, label)
    const all = positionsOf(scale)
    return found?.outcome === 'found' ? found.stop.label : (found?.nearest[0] ?? all[Math.floor(all.length / 2)].label)
  })
}

/** As far along that scale as along this one. */
function shared(from: BikeType, to: BikeType, marks: Marks): Marks {
  return perAxis(to, (axis) => {
    const there = positionsOf(axisOf(to, axis)!.scale)
    const here = axisOf(from, axis) ? positionsOf(axisOf(from, axis)!.scale) : []
    const at = here.findIndex(({ label }) => label === marks[axis])
    const share = at < 0 ? 0.5 : (here[at].mm - lowest(here)) / (highest(here) - lowest(here))
    return nearestPosition(axisOf(to, axis)!.scale, lowest(there) + share * (highest(there) - lowest(there))).label
  })
}
const lowest = (all: readonly { mm: number }[]) => Math.min(...all.map(({ mm }) => mm))
const highest = (all: readonly { mm: number }[]) => Math.max(...all.map(({ mm }) => mm))
const perAxis = (type: BikeType, label: (axis: AxisName) => string): Marks =>
  Object.fromEntries(axesOf(type).map((axis) => [axis, label(axis)]))

type Errors = { reachMm: number[]; setbackMm: number[]; gripMm: number[]; kneeDeg: number[] }
const errors = new Map<Way, Errors>(WAYS.map((way) => [way, { reachMm: [], setbackMm: [], gripMm: [], kneeDeg: [] }]))
const predicted: number[] = []
const fromExact: number[] = []
let ended = 0
/** On types whose bars slide: how far the grip is from its place at the saddle as that then stands, in half marks. */
const barHalfMarks: number[] = []
/** There and home: how far each axis is from its mark, in half a mark of the one plus half a mark of the other. */
const homeShares: number[] = []
for (const [p, [from, to]] of types.flatMap((a) => types.filter((b) => b !== a).map((b) => [a, b] as const)).entries())
  for (let i = 0; i < RIDERS; i++) {
    const random = createRng(1000 * (p + 1) + i)
    const { body } = drawRider(POPULATIONS.own, from, random)
    const marks = marksFor(from, body, random.uniform)
    const before = contactPoints(from, undefined, axisPositions(from, marks))
    const knee = (type: BikeType, at: Marks) =>
      bottomFlexionDeg(
        prepareLeg(body, DEFAULT_SOLE_MM, type, bottomCrankDeg(to)),
        contactPoints(type, undefined, axisPositions(type, at)).seat,
      )
    const found = translateMarks({ from: { bikeType: from, marks }, to: { bikeType: to } })
    if (found.outOfRange.length > 0) {
      ended += 1
      continue
    }
    const change = knee(to, found.marks) - knee(from, marks)
    predicted.push(Math.abs(found.kneeChangeDeg - change))
    const { contact } = found
    fromExact.push(Math.abs(kneeChangeDeg(contact.before, contact.there, to, knee(from, marks)) - change))
    const ways: Record<Way, Marks> = {
      translate: found.marks,
      'copied labels': copied(to, marks),
      'same share of the scale': shared(from, to, marks),
    }
    const at = contactPoints(to, undefined, axisPositions(to, found.marks))
    const gripOffMm = [
      at.grip.xMm - at.seat.xMm - (before.grip.xMm - before.seat.xMm),
      at.grip.yMm - at.seat.yMm - (before.grip.yMm - before.seat.yMm),
    ]
    if (to.axes.barSlide)
      barHalfMarks.push(
        Math.abs(gripOffMm[0]) / halfMarkMm(to, 'barSlide', found.marks),
        Math.abs(gripOffMm[1]) / halfMarkMm(to, 'barHeight', found.marks),
      )
    const home = translateMarks({ from: { bikeType: to, marks: found.marks }, to: { bikeType: from } })
    for (const axis of ['seatHeight', 'seatSlide'] as const) {
      const [was, is] = [marks, home.marks].map((all) => axisPositions(from, all)[axis]!)
      homeShares.push(Math.abs(is - was) / (halfMarkMm(from, axis, marks) + halfMarkMm(to, axis, found.marks)))
    }
    for (const way of WAYS) {
      const there = contactPoints(to, undefined, axisPositions(to, ways[way]))
      const own = errors.get(way)!
      own.reachMm.push(Math.abs(farthestPedalMm(there.seat, to) - farthestPedalMm(before.seat, from)))
      own.setbackMm.push(Math.abs(there.seat.xMm - before.seat.xMm))
      own.gripMm.push(
        Math.hypot(
          there.grip.xMm - there.seat.xMm - (before.grip.xMm - before.seat.xMm),
          there.grip.yMm - there.seat.yMm - (before.grip.yMm - before.seat.yMm),
        ),
      )
      own.kneeDeg.push(Math.abs(knee(to, ways[way]) - knee(from, marks)))
    }
  }

/** Half the distance from a mark to its farther neighbour, mm along the axis. */
function halfMarkMm(type: BikeType, axis: AxisName, marks: Marks): number {
  const all = positionsOf(axisOf(type, axis)!.scale)
  const here = all.findIndex(({ label }) => label === marks[axis])
  const gaps = [all[here - 1], all[here + 1]].flatMap((one) => (one ? Math.abs(one.mm - all[here].mm) : []))
  return Math.max(...gaps) / 2
}

/** Marks at which this body's knee bends nearest 30°, bars somewhere on their scales. */
function marksFor(type: BikeType, body: Parameters<typeof prepareLeg>[0], uniform: () => number): Marks {
  const leg = prepareLeg(body, DEFAULT_SOLE_MM, type, bottomCrankDeg(type))
  const any = (axis: AxisName) => {
    const all = positionsOf(axisOf(type, axis)!.scale)
    return all[Math.floor(uniform() * all.length)].label
  }
  const rest = perAxis(type, any)
  const heights = positionsOf(type.axes.seatHeight.scale)
  const off = (label: string) =>
    Math.abs(
      bottomFlexionDeg(leg, contactPoints(type, undefined, axisPositions(type, { ...rest, seatHeight: label })).seat) -
        30,
    )
  return { ...rest, seatHeight: heights.reduce((a, b) => (off(b.label) < off(a.label) ? b : a)).label }
}

const quantile = (all: readonly number[], share: number): string =>
  [...all].sort((a, b) => a - b)[Math.min(all.length - 1, Math.floor(share * all.length))].toFixed(1)
const both = (all: readonly number[]) => `${quantile(all, 0.5)} / ${quantile(all, 0.95)}`
const rows = WAYS.map((way) => {
  const { reachMm, setbackMm, gripMm, kneeDeg } = errors.get(way)!
  return `| ${way} | ${both(reachMm)} | ${both(setbackMm)} | ${both(gripMm)} | ${both(kneeDeg)} |`
})
const within = (all: readonly number[]) =>
  `within 0.5° for ${((100 * all.filter((deg) => deg <= 0.5).length) / all.length).toFixed(1)} of 100, ` +
  `at most ${Math.max(...all).toFixed(2)}°`
const beyond = `${ended} of ${6 * RIDERS}`
const text = [
  '# Numbers on another type of bike',
  '',
  `Made by \`npm run bench:translate\`: ${RIDERS} seeded riders for each of the six pairs of demo types, set where`,
  `their knee bends nearest 30°, the bars anywhere; ${beyond} lie beyond a scale of the other type and are`,
  'left out. How far from where they were, median / 95th percentile; what is left of `translate` is rounding to the',
  'nearest marks, and the reach of a type whose bars do not slide.',
  '',
  '| by | seat to farthest pedal, mm | seat behind the axle, mm | grip from the seat, mm | knee, degrees |',
  '|---|---|---|---|---|',
  ...rows,
  '',
  'What `translate` says of the knee against the knee of each rider’s own body there:',
  `with nothing known of the rider ${within(predicted)};`,
  `from the knee as it was before ${within(fromExact)}.`,
  '',
  'On types whose bars slide the grip is where it was from the saddle as that then stands, within',
  `${Math.max(...barHalfMarks).toFixed(2)} of half a mark at most, in height and in length.`,
  'There and home the saddle is within',
  `${Math.max(...homeShares).toFixed(2)} of half a mark of the one plus half a mark of the other at most.`,
  '',
].join('\n')
writeFileSync(new URL('../../docs/bench/translate.md', import.meta.url), text)
console.log(text)
