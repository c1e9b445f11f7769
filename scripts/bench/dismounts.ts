/**
 * How often a rider climbs off, and whether the saddle truly ends right, for simulated riders whose bodies are known:
 * two ways by hand beside the recommendation, all with the same checks in one mount, knee *and* plumb line. Then
 * whether stated chances are true, what a studio's own set-ups teach, and what knowing one's eye is worth. Prints
 * Markdown.
 *
 *   npm run bench:dismounts -- --seeds 1,2 --riders 200 --samples 1000
 *   npm run bench:dismounts -- --riders 400 --only 'letters, hip crest'
 */
import { parseArgs } from 'node:util'
import type { BikeType } from '../../core/bike/bike'
import type { Marks } from '../../core/conventions'
import type { Observer } from '../../core/evidence/defineKind'
import type { Evidence } from '../../core/evidence/registry'
import { kneeEyeError, observerFrom, plumbEyeError } from '../../core/learning/observerFromPairs'
import { riderScores, studioPrior } from '../../core/learning/studioPrior'
import { MEASUREMENT_SD } from '../../core/measurementNoise'
import { recommend } from '../../core/recommend/recommend'
import type { EarlierSetup } from '../../core/recommend/riderHistory'
import { priorFor, type Prior } from '../../core/rider/prior'
import { createRng, type Rng } from '../../core/rng'
import { nearestPosition, positionsOf, type Scale } from '../../core/scale/scale'
import { DEFAULT_SCHOOL, inWindow, PLUMB_WINDOW_MM } from '../../core/school/school'
import * as simulated from '../../core/simulated/simulatedRider'
import { POPULATIONS, type SimulatedEye, type SimulatedRider } from '../../core/simulated/simulatedRider'

const { values } = parseArgs({
  options: {
    seeds: { type: 'string', default: '1' },
    riders: { type: 'string', default: '200' },
    samples: { type: 'string', default: '1000' },
    only: { type: 'string', default: '' },
  },
})
const SEEDS = values.seeds.split(',').map(Number)
const RIDERS = Number(values.riders)
const SAMPLES = Number(values.samples)
/** Of all rows only those whose "scale, start, method" matches. */
const ONLY = new RegExp(values.only)
const MOST_MOUNTS = 12
/** The two checks are right within this of their windows: what no instrument at the bike tells apart. */
const TOLERANCE = { deg: 1, mm: 3 }

const letter = (i: number): string => (i >= 26 ? 'A' : '') + String.fromCharCode(65 + (i % 26))
const SCALES: Readonly<Record<string, Scale>> = {
  'holes 20 mm': {
    marks: Array.from({ length: 21 }, (_, i) => ({ label: String(i + 1), mm: 20 * i })),
    halfMarks: false,
  },
  'letters 12.7 mm': {
    marks: Array.from({ length: 33 }, (_, i) => ({ label: letter(i), mm: 12.7 * i })),
    halfMarks: false,
  },
}

const bikeWith = (seatHeight: Scale, crankMm = 170): BikeType => ({
  name: 'bench',
  crankMm,
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
      scale: { marks: Array.from({ length: 12 }, (_, i) => ({ label: String(i + 1), mm: 20 * i })), halfMarks: false },
    },
  },
  forearmGaugeValid: false,
})
/** The type on which a known rider was set up before. */
const OTHER_BIKE = bikeWith({ ruler: { min: 0, max: 40, resolution: 0.5, mmPerUnit: 10, mmAtZero: 0 } }, 172.5)

type Stated = Readonly<{ chance: number; true: boolean }>
type Ended = Readonly<{
  dismounts: number
  /** Both checks right at the first mount, and at the end; the knee at the end, where a mark exists for both. */
  first: boolean
  both: boolean
  knee: boolean | null
  stated: Readonly<{ height: readonly Stated[]; slide: readonly Stated[]; start: readonly Stated[] }>
}>

const kneeHolds = (rider: SimulatedRider, at: Marks, slackDeg = 0): boolean =>
  inWindow(simulated.trueFlexionDeg(rider, at), [
    DEFAULT_SCHOOL.kneeWindowDeg[0] - slackDeg,
    DEFAULT_SCHOOL.kneeWindowDeg[1] + slackDeg,
  ])
const plumbHolds = (rider: SimulatedRider, at: Marks, slackMm = 0): boolean =>
  inWindow(simulated.truePlumbMm(rider, at), [PLUMB_WINDOW_MM.plumb[0] - slackMm, PLUMB_WINDOW_MM.plumb[1] + slackMm])
const right = (rider: SimulatedRider, at: Marks): boolean =>
  kneeHolds(rider, at, TOLERANCE.deg) && plumbHolds(rider, at, TOLERANCE.mm)

function aMarkExists(rider: SimulatedRider): boolean {
  const { seatHeight, seatSlide } = rider.bikeType.axes
  return positionsOf(seatHeight.scale).some((height) =>
    positionsOf(seatSlide.scale).some((slide) => {
      const at = { seatHeight: height.label, seatSlide: slide.label }
      return kneeHolds(rider, at) && plumbHolds(rider, at)
    }),
  )
}

const NOTHING_STATED = { height: [], slide: [], start: [] }
const endedAt = (
  rider: SimulatedRider,
  { at, firstAt, dismounts }: { at: Marks; firstAt: Marks; dismounts: number },
  stated: Ended['stated'] = NOTHING_STATED,
): Ended => ({
  dismounts,
  first: right(rider, firstAt),
  both: right(rider, at),
  knee: aMarkExists(rider) ? kneeHolds(rider, at, TOLERANCE.deg) : null,
  stated,
})

/** By hand: both checks in a mount, then one change of height and slide, until both are as wanted or nothing moves. */
function byHand(rider: SimulatedRider, moveMm: (at: Marks) => { height: number; slide: number }): Ended {
  const { seatHeight, seatSlide } = rider.bikeType.axes
  const crestMark = simulated.crestAtMark(rider).at!.seatHeight
  let height = positionsOf(seatHeight.scale).find(({ label }) => label === crestMark)!
  let slide = nearestPosition(seatSlide.scale, 0)
  const firstAt: Marks = { seatHeight: height.label, seatSlide: slide.label }
  for (let dismounts = 0; ; dismounts++) {
    const at: Marks = { seatHeight: height.label, seatSlide: slide.label }
    const move = moveMm(at)
    const up = nearestPosition(seatHeight.scale, height.mm + move.height)
    const along = nearestPosition(seatSlide.scale, slide.mm + move.slide)
    if ((up.label === height.label && along.label === slide.label) || dismounts >= MOST_MOUNTS)
      return endedAt(rider, { at, firstAt, dismounts })
    ;[height, slide] = [up, along]
  }
}

const BY_HAND: Readonly<Record<string, (rider: SimulatedRider) => Ended>> = {
  /** One mark (at least 12 mm) at each look that is off, the slide by 10 mm when the knee looks off the pedal. */
  'by hand, by eye': (rider) =>
    byHand(rider, (at) => {
      const { seen } = simulated.kneeByEye(rider, at)
      const mm = simulated.truePlumbMm(rider, at) + MEASUREMENT_SD.plumbByEyeMm * rider.random.normal()
      return {
        height: seen === 'locked' ? -12.1 : seen === 'deepBend' ? 12.1 : 0,
        slide: mm > 20 ? -10 : mm < -20 ? 10 : 0,
      }
    }),
  /** 2.2 mm of seat a degree from the window's middle, the slide by what the string says. */
  'by hand, goniometer and string': (rider) =>
    byHand(rider, (at) => {
      const { deg } = simulated.goniometer(rider, at)
      const { mm } = simulated.plumbLine(rider, at)
      return {
        height: inWindow(deg, DEFAULT_SCHOOL.kneeWindowDeg) ? 0 : 2.2 * (deg - 30),
        slide: Math.abs(mm) <= 15 ? 0 : -mm,
      }
    }),
}

type Looks = (rider: SimulatedRider, at: Marks) => Evidence[]
type Told = Readonly<{
  evidence: readonly Evidence[]
  history?: readonly EarlierSetup[]
  observer?: Observer
  prior?: Partial<Prior>
}>

/** Follows the recommendation until it says stop; every change is one dismount. */
function follow(rider: SimulatedRider, told: Told, look: Looks): Ended {
  const { bikeType } = rider
  const evidence: Evidence[] = [...told.evidence]
  const stated = { height: [] as Stated[], slide: [] as Stated[], start: [] as Stated[] }
  let firstAt: Marks = {}
  for (let mounts = 0; ; mounts++) {
    const { next, marks, chances } = recommend({ bikeType, ...told, evidence, seed: 1, samples: SAMPLES })
    const at: Marks = { ...marks, ...Object.fromEntries(next.moves.map((m) => [m.axis, m.to])) }
    for (const { chance, label } of chances.seatHeight ?? [])
      if (chance >= 0.02) stated.height.push({ chance, true: kneeHolds(rider, { ...marks, seatHeight: label }) })
    for (const { chance, label } of chances.seatSlide ?? [])
      if (chance >= 0.02) stated.slide.push({ chance, true: plumbHolds(rider, { ...marks, seatSlide: label }) })
    if (mounts === 0) {
      firstAt = at
      const said = next.reasons.find((reason) => reason.code === 'chance')
      if (said?.code === 'chance')
        stated.start.push({ chance: said.chance, true: kneeHolds(rider, at) && plumbHolds(rider, at) })
    }
    const moved = next.moves.some((m) => m.from !== m.to)
    if ((mounts > 0 && (next.kind === 'stop' || !moved)) || mounts > MOST_MOUNTS)
      return endedAt(rider, { at, firstAt, dismounts: mounts - 1 }, stated)
    evidence.push(...look(rider, at))
  }
}

/** What the product asks beside the bike, as long as something is worth its time. */
function asked(rider: SimulatedRider): Told {
  const evidence: Evidence[] = [simulated.crestAtMark(rider)]
  for (let questions = 0; questions < 6; questions++) {
    const [top] = recommend({ bikeType: rider.bikeType, evidence, seed: 1, samples: SAMPLES }).questions
    if (!top || top.worthS <= 0) break
    evidence.push(simulated.answerBeside(rider, top.question))
  }
  return { evidence }
}

const AGO_DAYS = 180
/** The same shoes then and now, and told. */
const SOLE: Evidence = { kind: 'rider', experience: 'regular', soleMm: 10 }

/** Set up half a year ago on another type, checked with goniometer and string at the marks that were right there. */
function knownElsewhere(rider: SimulatedRider): Told {
  const then = simulated.inAnotherSetup(rider, OTHER_BIKE, AGO_DAYS)
  const { seatHeight, seatSlide } = OTHER_BIKE.axes
  const pairs = positionsOf(seatHeight.scale).flatMap((height) =>
    positionsOf(seatSlide.scale).map((slide) => ({ seatHeight: height.label, seatSlide: slide.label })),
  )
  const missOf = (at: Marks) =>
    Math.abs(simulated.trueFlexionDeg(then, at) - 30) + Math.abs(simulated.truePlumbMm(then, at)) / 3
  const at = pairs.reduce((best, pair) => (missOf(pair) < missOf(best) ? pair : best))
  const evidence = [SOLE, simulated.goniometer(then, at), simulated.plumbLine(then, at)]
  return { evidence: [SOLE], history: [{ bikeType: OTHER_BIKE, evidence, agoDays: AGO_DAYS }] }
}

const GONIOMETER: Looks = (rider, at) => [simulated.goniometer(rider, at), simulated.plumbLine(rider, at)]
const EYE: Looks = (rider, at) => [
  simulated.kneeByEye(rider, at),
  simulated.heelCheck(rider, at),
  simulated.plumbLine(rider, at),
]
const crest = (rider: SimulatedRider): Told => ({ evidence: [simulated.crestAtMark(rider)] })
const WAYS: readonly Readonly<{ start: string; method: string; from: (r: SimulatedRider) => Told; look: Looks }>[] = [
  { start: 'hip crest', method: 'goniometer, plumb line', from: crest, look: GONIOMETER },
  { start: 'hip crest and what it asks', method: 'goniometer, plumb line', from: asked, look: GONIOMETER },
  { start: 'known on another type', method: 'goniometer, plumb line', from: knownElsewhere, look: GONIOMETER },
  { start: 'hip crest', method: 'eye, heel, plumb line', from: crest, look: EYE },
]

const mean = (numbers: readonly number[]): number => numbers.reduce((a, b) => a + b, 0) / numbers.length
const share = (all: readonly boolean[]): number => mean(all.map((b) => (b ? 1 : 0)))
const percent = (part: number): string => `${(100 * part).toFixed(1)} %`
const ridersOf = (
  population: Prior,
  bikeType: BikeType,
  seed: number,
  make = simulated.drawRider,
): SimulatedRider[] => {
  const random: Rng = createRng(seed)
  return Array.from({ length: RIDERS }, () => make(population, bikeType, random))
}
/** A rider known elsewhere sits otherwise today than on the day they were set up there. */
const drawToday: typeof simulated.drawRider = (population, bikeType, random) =>
  simulated.inAnotherSetup(simulated.drawRider(population, bikeType, random), bikeType)

const lines: string[] = []
const print = (...more: string[]) => lines.push(...more)
const all: Ended[] = []

for (const population of Object.keys(POPULATIONS)) {
  print('', `## Riders: ${population}`, '')
  print('| seat scale | start | method | dismounts | bound | right at the first mount | knee right | both right |')
  print('|---|---|---|---|---|---|---|---|')
  for (const [scale, seatHeight] of Object.entries(SCALES)) {
    const bikeType = bikeWith(seatHeight)
    const row = (start: string, method: string, of: (rider: SimulatedRider) => Ended, make = simulated.drawRider) => {
      if (!ONLY.test(`${scale}, ${start}, ${method}`)) return
      process.stderr.write(`${population}, ${scale}, ${start}, ${method}\n`)
      const ended = SEEDS.flatMap((seed) => ridersOf(POPULATIONS[population], bikeType, seed, make).map(of))
      if (population === 'own') all.push(...ended)
      const knees = ended.flatMap((e) => (e.knee === null ? [] : [e.knee]))
      print(
        `| ${scale} | ${start} | ${method} | ${mean(ended.map((e) => e.dismounts)).toFixed(2)} | ` +
          `${(1 - share(ended.map((e) => e.first))).toFixed(2)} | ${percent(share(ended.map((e) => e.first)))} | ` +
          `${percent(share(knees))} | ${percent(share(ended.map((e) => e.both)))} |`,
      )
    }
    for (const [method, walk] of Object.entries(BY_HAND)) row('hip crest', method, walk)
    for (const { start, method, from, look } of WAYS)
      row(
        start,
        method,
        (rider) => follow(rider, from(rider), look),
        start === 'known on another type' ? drawToday : simulated.drawRider,
      )
  }
}

print('', '## Stated chances, riders of the model’s own spreads', '')
print('| stated | height: stated | true | cases | slide: stated | true | cases | start: stated | true | cases |')
print('|---|---|---|---|---|---|---|---|---|---|')
for (let tenth = 0; tenth < 10; tenth++) {
  const cells = (['height', 'slide', 'start'] as const).flatMap((axis) => {
    const here = all.flatMap((e) => e.stated[axis]).filter((s) => Math.min(9, Math.floor(10 * s.chance)) === tenth)
    return here.length === 0
      ? ['', '', '0']
      : [mean(here.map((s) => s.chance)).toFixed(3), share(here.map((s) => s.true)).toFixed(3), String(here.length)]
  })
  print(`| ${(tenth / 10).toFixed(1)}–${((tenth + 1) / 10).toFixed(1)} | ${cells.join(' | ')} |`)
}

/** A studio whose riders' legs are 3 % longer: right at the first mount by stature alone, before and after learning. */
function learning(seed: number): void {
  const bikeType = bikeWith(SCALES['letters 12.7 mm'])
  const longLegs = priorFor('natural', { legFactor: { mean: 1.03, sd: 0.035 } })
  const random = createRng(seed)
  const statureOf = (rider: SimulatedRider): Evidence[] => [simulated.answerBeside(rider, 'stature')]
  const taught = Array.from({ length: 60 }, (_, k) => {
    const rider = simulated.drawRider(longLegs, bikeType, random)
    const at = { seatHeight: recommendedHeight(rider, statureOf(rider)), seatSlide: 'D' }
    const evidence = [
      ...simulated.statureAndInseam(rider),
      simulated.goniometer(rider, at),
      simulated.plumbLine(rider, at),
    ]
    return riderScores({ bikeType, evidence }, DEFAULT_SCHOOL, k + 1)
  })
  const { prior } = studioPrior(taught, DEFAULT_SCHOOL)
  const first = (riders: readonly SimulatedRider[], learned: Partial<Prior>) =>
    share(
      riders.map((rider) => {
        const told = { evidence: statureOf(rider), prior: learned }
        const { next, marks } = recommend({ bikeType, ...told, seed: 1, samples: SAMPLES })
        return kneeHolds(rider, { ...marks, ...Object.fromEntries(next.moves.map((m) => [m.axis, m.to])) })
      }),
    )
  const riders = ridersOf(longLegs, bikeType, seed + 1000)
  const [before, after] = [first(riders, {}), first(riders, prior)]
  print(
    `| ${seed} | ${percent(before)} | ${percent(after)} | ${(after / before).toFixed(2)} | ` +
      `${prior.legFactor!.mean.toFixed(3)} |`,
  )
}

const recommendedHeight = ({ bikeType }: SimulatedRider, evidence: readonly Evidence[]): string =>
  recommend({ bikeType, evidence, seed: 1, samples: SAMPLES }).next.moves[0].to

/** An eye 5° off: dismounts by eye alone before and after 20 pairs, beside a true eye. */
function eyes(seed: number): void {
  const bikeType = bikeWith(SCALES['letters 12.7 mm'])
  const off: SimulatedEye = { biasDeg: 5, sdDeg: MEASUREMENT_SD.kneeByEyeDeg }
  const trueEye: SimulatedEye = { ...off, biasDeg: 0 }
  const random = createRng(seed)
  const pairs = Array.from({ length: 20 }, () => {
    const rider = simulated.drawRider(POPULATIONS.own, bikeType, random)
    const at = { seatHeight: recommendedHeight(rider, [simulated.crestAtMark(rider)]), seatSlide: 'D' }
    const { seen } = simulated.kneeByEye(rider, at, off)
    return { seen, read: simulated.goniometer(rider, at).deg, readSd: MEASUREMENT_SD.goniometerDeg }
  })
  const observer = observerFrom(kneeEyeError(pairs), plumbEyeError([]))
  const dismounts = (eye: SimulatedEye, known?: Observer) => {
    const look: Looks = (rider, at) => [simulated.kneeByEye(rider, at, eye), simulated.plumbLine(rider, at)]
    const ended = ridersOf(POPULATIONS.own, bikeType, seed + 2000).map((rider) =>
      follow(rider, { ...crest(rider), observer: known }, look),
    )
    return { mounts: mean(ended.map((e) => e.dismounts)), knee: share(ended.flatMap((e) => e.knee ?? [])) }
  }
  const rows = [dismounts(trueEye), dismounts(off), dismounts(off, observer)]
  print(
    `| ${seed} | ${rows.map((r) => `${r.mounts.toFixed(2)} (${percent(r.knee)})`).join(' | ')} | ` +
      `${(rows[2].mounts / rows[0].mounts).toFixed(2)} | ${observer.eye!.kneeBiasDeg.toFixed(1)}° |`,
  )
}

if (values.only === '') {
  print('', '## A studio whose riders’ legs are 3 % longer, after 60 set-ups', '')
  print('| seed | first suggestion right before | after | ratio | learned leg factor |', '|---|---|---|---|---|')
  for (const seed of SEEDS) learning(seed)
  print('', '## An eye 5° off, after 20 pairs: dismounts by eye (knee right)', '')
  print(
    '| seed | true eye | 5° off, unknown | 5° off, known | known against true | learned |',
    '|---|---|---|---|---|---|',
  )
  for (const seed of SEEDS) eyes(seed)
}
console.log([`Seeds ${SEEDS.join(', ')}, ${RIDERS} riders a row and seed, ${SAMPLES} samples.`, ...lines].join('\n'))
