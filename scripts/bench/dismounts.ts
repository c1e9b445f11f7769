/**
 * How often a rider climbs off, and whether the saddle truly ends right in both its checks, knee and plumb line: two
 * ways by hand beside the recommendation, for simulated riders whose bodies are known. Both checks are made in one
 * mount. Prints Markdown tables.
 *
 *   npm run bench:dismounts -- --seed 1 --riders 200 --samples 2000
 *   npm run bench:dismounts -- --riders 400 --only '^own, (holes|letters).*goniometer, plumb'
 */
import { parseArgs } from 'node:util'
import { createRng } from '../../core/rng'
import type { BikeType } from '../../core/bike/bike'
import type { Marks } from '../../core/conventions'
import type { Evidence } from '../../core/evidence/registry'
import { recommend } from '../../core/recommend/recommend'
import { nearestPosition, positionsOf, type Scale } from '../../core/scale/scale'
import { inWindow, DEFAULT_SCHOOL, PLUMB_WINDOW_MM } from '../../core/school/school'
import {
  crestAtMark,
  drawRider,
  kneeByEye,
  goniometer,
  heelCheck,
  plumbLine,
  POPULATIONS,
  statureAndInseam,
  trueFlexionDeg,
  truePlumbMm,
  type SimulatedRider,
} from '../../core/simulated/simulatedRider'

const { values } = parseArgs({
  options: {
    seed: { type: 'string', default: '1' },
    riders: { type: 'string', default: '200' },
    samples: { type: 'string', default: '2000' },
    only: { type: 'string', default: '' },
  },
})
const SEED = Number(values.seed)
const RIDERS = Number(values.riders)
const SAMPLES = Number(values.samples)
/** Of all rows only those whose "riders, scale, start, method" matches. */
const ONLY = new RegExp(values.only)
const MOST_MOUNTS = 12

type Stated = Readonly<{ chance: number; true: boolean }>
/** `start`: the chance stated of both checks at the start, and whether both were then strictly in their windows. */
type Ended = Readonly<{
  dismounts: number
  first: boolean
  flexionDeg: number
  plumbMm: number
  stated: readonly Stated[]
  start?: Stated
}>

const SCALES: Record<string, Scale> = {
  'holes 20 mm': {
    marks: Array.from({ length: 21 }, (_, i) => ({ label: String(i + 1), mm: 20 * i })),
    halfMarks: false,
  },
  'letters 12.7 mm': {
    marks: Array.from({ length: 33 }, (_, i) => ({ label: letter(i), mm: 12.7 * i })),
    halfMarks: false,
  },
  'ruler 5 mm': { ruler: { min: 0, max: 40, resolution: 0.5, mmPerUnit: 10, mmAtZero: 0 } },
}

function letter(i: number): string {
  return (i >= 26 ? 'A' : '') + String.fromCharCode(65 + (i % 26))
}

function bikeWith(seatHeight: Scale): BikeType {
  return {
    name: 'bench',
    crankMm: 170,
    pedalSurfaceMm: 14,
    axleHeightMm: 300,
    saddle: { noseAheadMm: 150, lengthMm: 275, shape: 'flat' },
    seatOrigin: { xMm: -164, yMm: 536 },
    gripOrigin: { xMm: 450, yMm: 650 },
    axes: {
      seatHeight: { directionDeg: 107, scale: seatHeight },
      seatSlide: {
        directionDeg: 0,
        scale: { marks: [...'ABCDEFG'].map((label, i) => ({ label, mm: 10 * (i - 3) })), halfMarks: false },
      },
      barHeight: {
        directionDeg: 90,
        scale: {
          marks: Array.from({ length: 12 }, (_, i) => ({ label: String(i + 1), mm: 20 * i })),
          halfMarks: false,
        },
      },
    },
    forearmGaugeValid: false,
  }
}

/** Where a rider ended after so many dismounts. */
function endedAt(
  rider: SimulatedRider,
  at: Marks,
  dismounts: number,
  firstAt: Marks,
  stated: readonly Stated[] = [],
  start?: Stated,
): Ended {
  const right = (marks: Marks) => isRight(trueFlexionDeg(rider, marks), truePlumbMm(rider, marks))
  return {
    dismounts,
    first: right(firstAt),
    flexionDeg: trueFlexionDeg(rider, at),
    plumbMm: truePlumbMm(rider, at),
    stated,
    start,
  }
}

/** Both checks in their windows, to 1° and 3 mm. */
const isRight = (flexionDeg: number, plumbMm: number): boolean =>
  flexionDeg >= 24 && flexionDeg <= 36 && Math.abs(plumbMm) <= 18

/** The nearest mark of an axis to a position, mm. */
const nearest = (rider: SimulatedRider, axis: 'seatHeight' | 'seatSlide', mm: number) =>
  nearestPosition(rider.bikeType.axes[axis].scale, mm)

/** By hand: both checks in a mount, then one change of height and slide, until both are as wanted or nothing moves. */
function byHand(rider: SimulatedRider, moveMm: (at: Marks) => { height: number; slide: number }): Ended {
  const scale = rider.bikeType.axes
  const crest = crestAtMark(rider).at!.seatHeight
  let height = positionsOf(scale.seatHeight.scale).find((s) => s.label === crest)!
  let slide = nearest(rider, 'seatSlide', 0)
  const first: Marks = { seatHeight: height.label, seatSlide: slide.label }
  for (let dismounts = 0; ; dismounts++) {
    const at: Marks = { seatHeight: height.label, seatSlide: slide.label }
    const move = moveMm(at)
    const [up, along] = [
      nearest(rider, 'seatHeight', height.mm + move.height),
      nearest(rider, 'seatSlide', slide.mm + move.slide),
    ]
    if ((up.label === height.label && along.label === slide.label) || dismounts >= MOST_MOUNTS)
      return endedAt(rider, at, dismounts, first)
    ;[height, slide] = [up, along]
  }
}

/** By eye: one mark (at least 12 mm) at each look that is off, the slide by 10 mm when the knee looks off the pedal. */
const walkByEye = (rider: SimulatedRider): Ended =>
  byHand(rider, (at) => {
    const { seen } = kneeByEye(rider, at)
    const mm = truePlumbMm(rider, at) + PLUMB_BY_EYE_SD_MM * rider.random.normal()
    return {
      height: seen === 'locked' ? -12.1 : seen === 'deepBend' ? 12.1 : 0,
      slide: mm > 20 ? -10 : mm < -20 ? 10 : 0,
    }
  })

/** Goniometer and string: 2.2 mm of seat a degree from the window's middle, the slide by what the string says. */
const walkByNumbers = (rider: SimulatedRider): Ended =>
  byHand(rider, (at) => {
    const { deg } = goniometer(rider, at)
    const { mm } = plumbLine(rider, at)
    return {
      height: inWindow(deg, DEFAULT_SCHOOL.kneeWindowDeg) ? 0 : 2.2 * (deg - 30),
      slide: Math.abs(mm) <= 15 ? 0 : -mm,
    }
  })
/** Spread of a plumb line judged by eye, mm (model notes). */
const PLUMB_BY_EYE_SD_MM = 12

/** Follows the recommendation until it says stop; every change is one dismount. */
function follow(
  rider: SimulatedRider,
  start: readonly Evidence[],
  look: (rider: SimulatedRider, at: Marks) => Evidence[],
): Ended {
  const { bikeType } = rider
  const evidence: Evidence[] = [...start]
  const stated: { chance: number; true: boolean }[] = []
  let firstAt: Marks = {}
  let started: Stated | undefined
  for (let mounts = 0; ; mounts++) {
    const { next, marks, chances } = recommend({ bikeType, evidence, seed: 1, samples: SAMPLES })
    const at: Marks = { ...marks, ...Object.fromEntries(next.moves.map((m) => [m.axis, m.to])) }
    for (const mark of chances.seatHeight ?? []) {
      if (mark.chance < 0.02) continue
      const flexion = trueFlexionDeg(rider, { ...marks, seatHeight: mark.label })
      stated.push({ chance: mark.chance, true: inWindow(flexion, DEFAULT_SCHOOL.kneeWindowDeg) })
    }
    if (mounts === 0) {
      firstAt = at
      const said = next.reasons.find((reason) => reason.code === 'chance')
      const holds =
        inWindow(trueFlexionDeg(rider, at), DEFAULT_SCHOOL.kneeWindowDeg) &&
        inWindow(truePlumbMm(rider, at), PLUMB_WINDOW_MM.plumb)
      if (said?.code === 'chance') started = { chance: said.chance, true: holds }
    }
    const moved = next.moves.some((m) => m.from !== m.to)
    const done = mounts > 0 && (next.kind === 'stop' || !moved)
    if (done || mounts > MOST_MOUNTS) return endedAt(rider, at, mounts - 1, firstAt, stated, started)
    evidence.push(...look(rider, at))
  }
}

const LOOKS = {
  'goniometer, plumb line': (rider: SimulatedRider, at: Marks) => [goniometer(rider, at), plumbLine(rider, at)],
  'eye, heel, plumb line': (rider: SimulatedRider, at: Marks) => [
    kneeByEye(rider, at),
    heelCheck(rider, at),
    plumbLine(rider, at),
  ],
}
const BY_HAND = { 'by hand, by eye': walkByEye, 'by hand, goniometer and string': walkByNumbers }
const STARTS = { 'hip crest': (rider: SimulatedRider) => [crestAtMark(rider)], 'stature, inseam': statureAndInseam }

type Row = { population: string; scale: string; method: string; start: string; ended: Ended[] }
const rows: Row[] = []
for (const population of Object.keys(POPULATIONS)) {
  for (const [scale, seatHeight] of Object.entries(SCALES)) {
    const bikeType = bikeWith(seatHeight)
    const riders = (seed: number) => {
      const random = createRng(seed)
      return Array.from({ length: RIDERS }, () => drawRider(POPULATIONS[population], bikeType, random))
    }
    for (const [method, walk] of Object.entries(BY_HAND)) {
      if (ONLY.test(`${population}, ${scale}, hip crest, ${method}`))
        rows.push({ population, scale, method, start: 'hip crest', ended: riders(SEED).map(walk) })
    }
    for (const [start, from] of Object.entries(STARTS)) {
      for (const [method, look] of Object.entries(LOOKS)) {
        const row = `${population}, ${scale}, ${start}, ${method}`
        if (!ONLY.test(row)) continue
        process.stderr.write(`${row}\n`)
        rows.push({
          population,
          scale,
          method,
          start,
          ended: riders(SEED).map((rider) => follow(rider, from(rider), look)),
        })
      }
    }
  }
}

const mean = (numbers: number[]): number => numbers.reduce((a, b) => a + b, 0) / numbers.length
const share = (ended: Ended[]) => mean(ended.map((e) => (isRight(e.flexionDeg, e.plumbMm) ? 1 : 0)))
const firstShare = (ended: Ended[]) => mean(ended.map((e) => (e.first ? 1 : 0)))
const lines = [
  `Seed ${SEED}, ${RIDERS} riders a row, ${SAMPLES} samples.`,
  '',
  '| riders | seat scale | start | method | dismounts | right at the first mount | both truly right |',
  '|---|---|---|---|---|---|---|',
  ...rows.map(
    (r) =>
      `| ${r.population} | ${r.scale} | ${r.start} | ${r.method} | ` +
      `${mean(r.ended.map((e) => e.dismounts)).toFixed(2)} | ` +
      `${(100 * firstShare(r.ended)).toFixed(1)} % | ${(100 * share(r.ended)).toFixed(1)} % |`,
  ),
  '',
  'All scales and starts together:',
  '',
  '| riders | method | dismounts | both truly right |',
  '|---|---|---|---|',
]
for (const population of Object.keys(POPULATIONS)) {
  for (const method of [...Object.keys(BY_HAND), ...Object.keys(LOOKS)]) {
    const ended = rows.filter((r) => r.population === population && r.method === method).flatMap((r) => r.ended)
    if (ended.length > 0)
      lines.push(
        `| ${population} | ${method} | ${mean(ended.map((e) => e.dismounts)).toFixed(2)} | ` +
          `${(100 * share(ended)).toFixed(1)} % |`,
      )
  }
}
const starts = rows.filter((r) => r.ended.some((e) => e.start))
if (starts.length > 0) {
  lines.push(
    '',
    'Both checks at the start: the chance stated, and the share of riders for whom both were then in their windows:',
    '',
  )
  lines.push('| riders | seat scale | start | stated | true |', '|---|---|---|---|---|')
  const shares = (ended: Ended[]) => {
    const all = ended.flatMap((e) => (e.start ? [e.start] : []))
    return `${mean(all.map((s) => s.chance)).toFixed(3)} | ${mean(all.map((s) => (s.true ? 1 : 0))).toFixed(3)}`
  }
  for (const r of starts) lines.push(`| ${r.population} | ${r.scale} | ${r.start}, ${r.method} | ${shares(r.ended)} |`)
  lines.push(`| all | | | ${shares(starts.flatMap((r) => r.ended))} |`)
}
lines.push('', 'Stated chance of a mark against the share of riders for whom it was truly in the window:', '')
lines.push('| stated | own: mean stated | own: true | wider: mean stated | wider: true |', '|---|---|---|---|---|')
const misses: Record<string, { off: number; count: number }> = {
  own: { off: 0, count: 0 },
  wider: { off: 0, count: 0 },
}
for (let tenth = 0; tenth < 10; tenth++) {
  const cells = Object.keys(POPULATIONS).flatMap((population) => {
    const said = rows.filter((r) => r.population === population).flatMap((r) => r.ended.flatMap((e) => e.stated))
    const here = said.filter((s) => Math.min(9, Math.floor(10 * s.chance)) === tenth)
    const claimed = mean(here.map((s) => s.chance))
    const happened = mean(here.map((s) => (s.true ? 1 : 0)))
    if (here.length > 0) misses[population].off += Math.abs(claimed - happened)
    if (here.length > 0) misses[population].count += 1
    return here.length === 0 ? ['', ''] : [claimed.toFixed(3), happened.toFixed(3)]
  })
  lines.push(`| ${(tenth / 10).toFixed(1)}–${((tenth + 1) / 10).toFixed(1)} | ${cells.join(' | ')} |`)
}
lines.push(
  '',
  ...Object.entries(misses)
    .filter(([, m]) => m.count > 0)
    .map(([p, m]) => `Mean distance over the tenths, ${p}: ${(m.off / m.count).toFixed(3)}`),
)
process.stdout.write(lines.join('\n') + '\n')
