/**
 * What an answer of `recommend` costs, beside an earlier version of the core (any commit of this repository): time for
 * ten rows at 4,000 samples with a new seed and with one row more than before, how it grows with the rows,
 * whether both versions agree, and the heaviest request that is allowed. Prints Markdown.
 *
 *   npm run bench:recommend -- --against cfc98f9 --runs 15
 */
import { execFileSync } from 'node:child_process'
import { existsSync, mkdirSync, rmSync } from 'node:fs'
import { parseArgs } from 'node:util'
import { pathToFileURL } from 'node:url'
import type { Evidence } from '../../core/riders/evidence/registry'
import { MAX_WORK } from '../../core/operations/cost'
import { advise, type Advice } from '../../core/setups/recommend/recommend'
import type { RecommendRequest } from '../../core/setups/recommend/request/request'
import { HOLES_BIKE as bikeType } from '../../core/testing/meanRider'

const { values } = parseArgs({
  options: { against: { type: 'string', default: 'cfc98f9' }, runs: { type: 'string', default: '15' } },
})
const RUNS = Number(values.runs)
const SAMPLES = 4000

const at = (seatHeight: string) => ({ seatHeight, seatSlide: 'D', barHeight: '6', barSlide: '0' })
const TEN_ROWS: Evidence[] = [
  { kind: 'rider', experience: 'regular' },
  { kind: 'stature', mm: 1720 },
  { kind: 'inseam', mm: 830, shod: false },
  { kind: 'landmarkAtMark', landmark: 'hipCrest', at: at('9') },
  { kind: 'kneeByEye', seen: 'deepBend', at: at('8') },
  { kind: 'kneeAngle', deg: 38, by: 'goniometer', at: at('8') },
  { kind: 'plumb', mm: 12, at: at('8') },
  { kind: 'kneeAngle', deg: 34, by: 'goniometer', at: at('9') },
  { kind: 'heelCheck', seen: 'justStraight', at: at('9') },
  { kind: 'plumb', mm: 4, at: at('9') },
]

/** The requested number of rows, of as many kinds and places as a set-up that never ends would have. */
const rowsOf = (count: number): Evidence[] =>
  Array.from({ length: count }, (_, i) => {
    const row = TEN_ROWS[i % TEN_ROWS.length]
    return i < TEN_ROWS.length || !('at' in row)
      ? row
      : { ...row, at: { ...row.at, seatSlide: 'ABCDEFG'[Math.floor(i / 10) % 7] } }
  })

type Core = { recommend: (request: RecommendRequest) => Advice }

/** Where a commit has the function, the newest place first. */
const PLACES = ['core/setups/recommend/recommend.ts', 'core/recommend/recommend.ts']

/** The core of another commit, laid out where it finds the same packages. */
async function coreOf(commit: string): Promise<Core> {
  const place = `node_modules/.cache/bench-recommend/${commit}`
  rmSync(place, { recursive: true, force: true })
  mkdirSync(place, { recursive: true })
  const packed = execFileSync('git', ['archive', commit, 'core'], { maxBuffer: 64 * 1024 * 1024 })
  execFileSync('tar', ['-x', '-C', place], { input: packed })
  const file = PLACES.map((path) => `${place}/${path}`).find((path) => existsSync(path))
  if (!file) throw new Error(`commit ${commit} has no recommend.ts`)
  type Module = Partial<Core & { advise: Core['recommend'] }>
  const found = (await import(pathToFileURL(file).href)) as Module
  return { recommend: (found.recommend ?? found.advise)! }
}

function timed(core: Core, request: RecommendRequest): { ms: number; advice: Advice } {
  const began = performance.now()
  const advice = core.recommend(request)
  return { ms: performance.now() - began, advice }
}

const median = (numbers: readonly number[]): number =>
  [...numbers].sort((a, b) => a - b)[Math.floor(numbers.length / 2)]
const requestOf = (rows: readonly Evidence[], seed: number, samples = SAMPLES): RecommendRequest => ({
  bikeType,
  evidence: rows,
  seed,
  samples,
})

async function main(): Promise<void> {
  const earlier = await coreOf(values.against)
  const now: Core = { recommend: advise }
  for (const core of [now, earlier]) for (let i = 0; i < 5; i++) timed(core, requestOf(TEN_ROWS, 7))

  const times = {
    newSeed: { now: [] as number[], earlier: [] as number[] },
    oneMore: { now: [] as number[], earlier: [] as number[] },
  }
  const answers = { now: [] as Advice[], earlier: [] as Advice[] }
  // Alternating, so that other load on the machine affects both.
  for (let run = 0; run < RUNS; run++) {
    for (const [name, core] of [
      ['now', now],
      ['earlier', earlier],
    ] as const) {
      const seed = 100 + run
      timed(core, requestOf(TEN_ROWS.slice(0, 9), 7))
      times.oneMore[name].push(timed(core, requestOf(TEN_ROWS, 7)).ms)
      const answer = timed(core, requestOf(TEN_ROWS, seed))
      times.newSeed[name].push(answer.ms)
      answers[name].push(answer.advice)
    }
  }
  const row = (what: string, { now: a, earlier: b }: { now: number[]; earlier: number[] }) =>
    console.log(
      `| ${what} | ${median(a).toFixed(0)} ms | ${median(b).toFixed(0)} ms | ${(median(a) / median(b)).toFixed(2)} |`,
    )
  console.log(`Ten rows, ${SAMPLES} samples, median of ${RUNS} runs turn about, beside commit ${values.against}.\n`)
  console.log('| | now | then | ratio |\n|---|---|---|---|')
  row('one row more than asked before, same seed (a tap at the bike)', times.oneMore)
  row('a seed not asked before (nothing is remembered)', times.newSeed)

  const figures: [string, (advice: Advice) => number][] = [
    ['knee at the proposed marks, °', (a) => a.belief.kneeFlexionDeg.mean],
    ['its spread, °', (a) => a.belief.kneeFlexionDeg.sd],
    ['plumb line, mm', (a) => a.belief.plumbOffsetMm.mean],
    ['leg, mm', (a) => a.belief.legMm.mean],
    ['chance of height 9', (a) => a.chances.seatHeight!.find((c) => c.label === '9')!.chance],
    ['chance of height 8', (a) => a.chances.seatHeight!.find((c) => c.label === '8')!.chance],
  ]
  console.log(
    '\n| Figure | now: mean of seeds | their spread | then: mean of seeds | their spread ' +
      '| apart, in standard errors |' +
      '\n|---|---|---|---|---|---|',
  )
  for (const [name, of] of figures) {
    const [a, b] = [moments(answers.now.map(of)), moments(answers.earlier.map(of))]
    const error = Math.hypot(a.sd, b.sd) / Math.sqrt(RUNS)
    console.log(
      `| ${name} | ${a.mean.toFixed(3)} | ${a.sd.toFixed(3)} | ${b.mean.toFixed(3)} | ${b.sd.toFixed(3)} ` +
        `| ${((a.mean - b.mean) / error).toFixed(1)} |`,
    )
  }

  console.log('\n| Rows | time, a new seed | per row |\n|---|---|---|')
  for (const count of [10, 20, 40, 80, 160, 320]) {
    const ms = median([1, 2, 3, 4, 5].map((run) => timed(now, requestOf(rowsOf(count), 1000 + 10 * run + count)).ms))
    console.log(`| ${count} | ${ms.toFixed(0)} ms | ${(ms / count).toFixed(1)} ms |`)
  }

  console.log('\n| The heaviest requests allowed | time | more in memory |\n|---|---|---|')
  const rows = 40
  const samples = Math.floor((1000 * MAX_WORK) / rows)
  heavy(`${rows} rows × ${samples} samples`, requestOf(rowsOf(rows), 5, samples))
  heavy('500 rows × 4000 samples', requestOf(rowsOf(500), 6))
  const fine = (mmPerUnit: number, mmAtZero: number) => ({
    ruler: { min: 0, max: 399, resolution: 1, mmPerUnit, mmAtZero },
  })
  const rulers = {
    ...bikeType.axes,
    seatHeight: { directionDeg: 107, scale: fine(1, 0) },
    seatSlide: { directionDeg: 0, scale: fine(0.2, -40) },
  }
  const row9 = (deg: number): Evidence => ({
    kind: 'kneeAngle',
    deg,
    by: 'goniometer',
    at: { seatHeight: '160', seatSlide: '200' },
  })
  heavy('400 × 400 marks, 50,000 samples', {
    bikeType: { ...bikeType, axes: rulers },
    evidence: [row9(33)],
    seed: 8,
    samples: 50_000,
  })

  function heavy(what: string, request: RecommendRequest): void {
    globalThis.gc?.()
    const before = process.memoryUsage().rss
    const { ms } = timed(now, request)
    const grown = Math.max(0, process.memoryUsage().rss - before) / 1024 ** 2
    console.log(`| ${what} | ${(ms / 1000).toFixed(1)} s | ${grown.toFixed(0)} MB |`)
  }
}

function moments(numbers: readonly number[]): { mean: number; sd: number } {
  const mean = numbers.reduce((a, b) => a + b, 0) / numbers.length
  return { mean, sd: Math.sqrt(numbers.reduce((sum, x) => sum + (x - mean) ** 2, 0) / (numbers.length - 1)) }
}

void main()
