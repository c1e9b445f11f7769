/**
 * Riders who were set up in one studio and come to another: how often the first saddle suggested there is right, by
 * their own file (issued on the day they were set up, or on the day they come), beside nothing known of them and beside
 * their set-up itself at hand. The same riders in one run. Then numbers that go there and come home. Prints Markdown.
 *
 *   npm run bench:riderFile -- --seeds 1,2 --riders 300 --samples 1000
 */
import { axisOf, axesOf, type BikeType } from '../../core/bikes/bike/bike'
import { axisPositions, contactPoints } from '../../core/bikes/bike/contactPoints'
import type { AxisName, Marks } from '../../core/base/conventions'
import { createRng } from '../../core/base/rng'
import { positionsOf } from '../../core/bikes/scale/scale'
import { body } from '../../core/operations/requests/body'
import { lengthsOf } from '../../core/riders/riderFile/riderFile'
import { translateMarks } from '../../core/setups/translate/translate'
import { POPULATIONS, type SimulatedRider } from '../../core/simulated/simulatedRider'
import { TYPES } from '../netloftHall'
import { bikeWith, mean, percent, RIDERS, ridersOf, SAMPLES, SCALES, SEEDS, share } from './dismounts/inputs'
import { crest, drawToday, follow, WAYS, type Ended, type StartInformation } from './dismounts/walks'

const known = WAYS.find(({ start }) => start === 'known on another type')!

/** The same set-up as a belief that another studio wrote down: on that day, or today, half a year later. */
function byFile(rider: SimulatedRider, written: 'then' | 'now'): StartInformation {
  const { evidence, history = [] } = known.from(rider)
  const [{ agoDays }] = history
  const { belief } = body({ history: history.map((one) => (written === 'then' ? { ...one, agoDays: 0 } : one)) })
  return { evidence, body: { belief: belief!, agoDays: written === 'then' ? agoDays : 0 } }
}

const STARTS: Readonly<Record<string, (rider: SimulatedRider) => StartInformation>> = {
  'nothing known, hip crest': crest,
  'by file, written half a year ago': (rider) => byFile(rider, 'then'),
  'by file, written today': (rider) => byFile(rider, 'now'),
  'known on another type': known.from,
}

const lines = [
  `Seeds ${SEEDS.join(', ')}, ${RIDERS} riders a row and seed, ${SAMPLES} samples; set up half a year ago elsewhere.`,
  '',
  '| seat scale | start | right at the first mount | dismounts | both right at the end |',
  '|---|---|---|---|---|',
]
for (const [scale, seatHeight] of Object.entries(SCALES)) {
  const bikeType = bikeWith(seatHeight)
  for (const [start, from] of Object.entries(STARTS)) {
    process.stderr.write(`${scale}, ${start}\n`)
    const ended: Ended[] = SEEDS.flatMap((seed) =>
      ridersOf(POPULATIONS.own, bikeType, seed, drawToday).map((rider) => follow(rider, from(rider), known.look)),
    )
    lines.push(
      `| ${scale} | ${start} | ${percent(share(ended.map(({ first }) => first)))} | ` +
        `${mean(ended.map(({ dismounts }) => dismounts)).toFixed(2)} | ` +
        `${percent(share(ended.map(({ both }) => both)))} |`,
    )
  }
}

/** Half the distance from a mark to its nearest neighbour, mm along the axis. */
function halfMarkMm(type: BikeType, axis: AxisName, label: string): number {
  const all = positionsOf(axisOf(type, axis)!.scale)
  const at = all.findIndex((one) => one.label === label)
  const gaps = [all[at - 1], all[at + 1]].flatMap((one) => (one ? Math.abs(one.mm - all[at].mm) : []))
  return Math.max(...gaps) / 2
}

const carried = (type: BikeType, marks: Marks) => {
  const { seat, nose, grip } = contactPoints(type, {}, axisPositions(type, marks))
  const noseAheadMm = nose.xMm - seat.xMm
  const { crankMm, pedalSurfaceMm } = type
  return { lengths: lengthsOf({ seat, grip, noseAheadMm }), crankMm, noseAheadMm, pedalSurfaceMm }
}

const home: Record<'saddle' | 'same marks', boolean[]> = { saddle: [], 'same marks': [] }
const types = Object.values(TYPES)
const random = createRng(5)
for (const from of types)
  for (const to of types.filter((one) => one !== from))
    for (let i = 0; i < RIDERS; i++) {
      const marks = Object.fromEntries(
        axesOf(from).map((axis) => {
          const all = positionsOf(axisOf(from, axis)!.scale)
          return [axis, all[Math.floor(random.uniform() * all.length)].label]
        }),
      ) as Marks
      const there = translateMarks({ from: carried(from, marks), to: { bikeType: to } })
      if (there.outOfRange.length > 0) continue
      const back = translateMarks({ from: carried(to, there.marks), to: { bikeType: from } })
      const offMm = (axis: 'seatHeight' | 'seatSlide') => {
        const mm = (label: string | undefined) => axisPositions(from, { [axis]: label })[axis]!
        const limit = halfMarkMm(from, axis, marks[axis]!) + halfMarkMm(to, axis, there.marks[axis]!)
        return Math.abs(mm(back.marks[axis]) - mm(marks[axis])) <= limit + 1e-6
      }
      home.saddle.push(offMm('seatHeight') && offMm('seatSlide'))
      home['same marks'].push((['seatHeight', 'seatSlide'] as const).every((axis) => back.marks[axis] === marks[axis]))
    }
lines.push(
  '',
  `There and home between the demo’s types, ${home.saddle.length} sets within both ranges, each written and read anew:`,
  `the saddle within half a mark of the one plus half a mark of the other for ${percent(share(home.saddle))}, at the`,
  `very same marks for ${percent(share(home['same marks']))}. Numbers that were not touched there go home as they`,
  'came.',
)
console.log(lines.join('\n'))
