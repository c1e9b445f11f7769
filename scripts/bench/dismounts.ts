/**
 * How often a rider climbs off, and whether the seat truly ends right: walking mark by mark by eye against the
 * recommendation, for simulated riders whose bodies are known. Prints a Markdown table.
 *
 *   npm run bench:dismounts -- --seed 1 --riders 200 --samples 2000
 */
import { parseArgs } from 'node:util'
import { randomFrom } from '../../core/belief/random'
import type { BikeType } from '../../core/bike/bike'
import type { Marks } from '../../core/conventions'
import type { Evidence } from '../../core/evidence/evidence'
import { recommend } from '../../core/recommend/recommend'
import { stopsOf, type Scale } from '../../core/scale/scale'
import { inWindow, DEFAULT_SCHOOL } from '../../core/school/school'
import { crestAtMark, drawRider, eye, goniometer, heel, POPULATIONS, statureAndInseam, trueFlexionDeg, type SimulatedRider } from '../../core/simulated/simulatedRider'

const { values } = parseArgs({
  options: { seed: { type: 'string', default: '1' }, riders: { type: 'string', default: '200' }, samples: { type: 'string', default: '2000' } },
})
const SEED = Number(values.seed)
const RIDERS = Number(values.riders)
const SAMPLES = Number(values.samples)
const MOST_MOUNTS = 12

type Ended = Readonly<{ dismounts: number; flexionDeg: number; stated: { chance: number; true: boolean }[] }>

const SCALES: Record<string, Scale> = {
  'holes 20 mm': { marks: Array.from({ length: 21 }, (_, i) => ({ label: String(i + 1), mm: 20 * i })), halfMarks: false },
  'letters 12.7 mm': { marks: Array.from({ length: 33 }, (_, i) => ({ label: letter(i), mm: 12.7 * i })), halfMarks: false },
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
      seatSlide: { directionDeg: 0, scale: { marks: [...'ABCDEFG'].map((label, i) => ({ label, mm: 10 * (i - 3) })), halfMarks: false } },
      barHeight: { directionDeg: 90, scale: { marks: Array.from({ length: 12 }, (_, i) => ({ label: String(i + 1), mm: 20 * i })), halfMarks: false } },
    },
    forearmGaugeValid: false,
  }
}

/** Starts at the crest's own mark; at each miss the rider gets off and the seat goes one mark (at least 12 mm). */
function walkByEye(rider: SimulatedRider): Ended {
  const stops = stopsOf(rider.bikeType.axes.seatHeight.scale)
  const stride = Math.ceil(12 / Math.abs(stops[1].mm - stops[0].mm))
  const crest = crestAtMark(rider).at!.seatHeight
  let index = stops.findIndex((s) => s.label === crest)
  for (let dismounts = 0; ; dismounts++) {
    const at: Marks = { seatHeight: stops[index].label, seatSlide: 'D' }
    const { seen } = eye(rider, at)
    const next = Math.min(stops.length - 1, Math.max(0, index + (seen === 'locked' ? -stride : seen === 'deepBend' ? stride : 0)))
    if (next === index || dismounts >= MOST_MOUNTS) return { dismounts, flexionDeg: trueFlexionDeg(rider, at), stated: [] }
    index = next
  }
}

/** Follows the recommendation until it says stop; every change is one dismount. */
function follow(rider: SimulatedRider, start: readonly Evidence[], look: (rider: SimulatedRider, at: Marks) => Evidence[]): Ended {
  const { bikeType } = rider
  const evidence: Evidence[] = [...start]
  const stated: { chance: number; true: boolean }[] = []
  for (let mounts = 0; ; mounts++) {
    const { next, marks, chances } = recommend({ bikeType, evidence, seed: 1, samples: SAMPLES })
    const at: Marks = { ...marks, ...Object.fromEntries(next.moves.map((m) => [m.axis, m.to])) }
    for (const mark of chances.seatHeight ?? []) {
      if (mark.chance < 0.02) continue
      const flexion = trueFlexionDeg(rider, { ...marks, seatHeight: mark.label })
      stated.push({ chance: mark.chance, true: inWindow(flexion, DEFAULT_SCHOOL.kneeWindowDeg) })
    }
    const moved = next.moves.some((m) => m.from !== m.to)
    const done = mounts > 0 && (next.kind === 'stop' || !moved)
    if (done || mounts > MOST_MOUNTS) return { dismounts: mounts - 1, flexionDeg: trueFlexionDeg(rider, at), stated }
    evidence.push(...look(rider, at))
  }
}

const LOOKS = {
  goniometer: (rider: SimulatedRider, at: Marks) => [goniometer(rider, at)],
  'eye and heel': (rider: SimulatedRider, at: Marks) => [eye(rider, at), heel(rider, at)],
}
const STARTS = { 'hip crest': (rider: SimulatedRider) => [crestAtMark(rider)], 'stature, inseam': statureAndInseam }

type Row = { population: string; scale: string; method: string; start: string; ended: Ended[] }
const rows: Row[] = []
for (const population of Object.keys(POPULATIONS)) {
  for (const [scale, seatHeight] of Object.entries(SCALES)) {
    const bikeType = bikeWith(seatHeight)
    const riders = (seed: number) => {
      const random = randomFrom(seed)
      return Array.from({ length: RIDERS }, () => drawRider(POPULATIONS[population], bikeType, random))
    }
    rows.push({ population, scale, method: 'walking by eye', start: 'hip crest', ended: riders(SEED).map(walkByEye) })
    for (const [start, from] of Object.entries(STARTS)) {
      for (const [method, look] of Object.entries(LOOKS)) {
        process.stderr.write(`${population}, ${scale}, ${start}, ${method}\n`)
        rows.push({ population, scale, method, start, ended: riders(SEED).map((rider) => follow(rider, from(rider), look)) })
      }
    }
  }
}

const mean = (numbers: number[]): number => numbers.reduce((a, b) => a + b, 0) / numbers.length
const share = (ended: Ended[]) => mean(ended.map((e) => (e.flexionDeg >= 24 && e.flexionDeg <= 36 ? 1 : 0)))
const lines = [
  `Seed ${SEED}, ${RIDERS} riders a row, ${SAMPLES} samples.`,
  '',
  '| riders | seat scale | start | method | dismounts | truly within 24–36° |',
  '|---|---|---|---|---|---|',
  ...rows.map((r) => `| ${r.population} | ${r.scale} | ${r.start} | ${r.method} | ${mean(r.ended.map((e) => e.dismounts)).toFixed(2)} | ${(100 * share(r.ended)).toFixed(1)} % |`),
  '',
  'All scales and starts together:',
  '',
  '| riders | method | dismounts | truly within 24–36° |',
  '|---|---|---|---|',
]
for (const population of Object.keys(POPULATIONS)) {
  for (const method of ['walking by eye', ...Object.keys(LOOKS)]) {
    const ended = rows.filter((r) => r.population === population && r.method === method).flatMap((r) => r.ended)
    lines.push(`| ${population} | ${method} | ${mean(ended.map((e) => e.dismounts)).toFixed(2)} | ${(100 * share(ended)).toFixed(1)} % |`)
  }
}
lines.push('', 'Stated chance of a mark against the share of riders for whom it was truly in the window:', '')
lines.push('| stated | own: mean stated | own: true | wider: mean stated | wider: true |', '|---|---|---|---|---|')
const misses: Record<string, { off: number; count: number }> = { own: { off: 0, count: 0 }, wider: { off: 0, count: 0 } }
for (let tenth = 0; tenth < 10; tenth++) {
  const cells = Object.keys(POPULATIONS).flatMap((population) => {
    const said = rows.filter((r) => r.population === population).flatMap((r) => r.ended.flatMap((e) => e.stated))
    const here = said.filter((s) => Math.min(9, Math.floor(10 * s.chance)) === tenth)
    const claimed = mean(here.map((s) => s.chance))
    const happened = mean(here.map((s) => (s.true ? 1 : 0)))
    misses[population].off += Math.abs(claimed - happened)
    misses[population].count += 1
    return [claimed.toFixed(3), happened.toFixed(3)]
  })
  lines.push(`| ${(tenth / 10).toFixed(1)}–${((tenth + 1) / 10).toFixed(1)} | ${cells.join(' | ')} |`)
}
lines.push('', ...Object.entries(misses).map(([p, m]) => `Mean distance over the tenths, ${p}: ${(m.off / m.count).toFixed(3)}`))
process.stdout.write(lines.join('\n') + '\n')
