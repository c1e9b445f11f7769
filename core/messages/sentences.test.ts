import { TYPES } from '@/scripts/netloftHall'
import { axesOf, type BikeType } from '../bikes/bike/bike'
import { COMPLAINTS } from '../comfort/model/causeTable'
import { HEALTH, MOMENTS, type Finding } from '../comfort/model/request'
import type { Marks } from '../base/conventions'
import type { Evidence } from '../riders/evidence/registry'
import { explain } from '../operations/requests/explain'
import { recommend } from '../operations/requests/recommend'
import { translate } from '../operations/requests/translate'
import { createRng } from '../base/rng'
import { positionsOf } from '../bikes/scale/scale'
import { SIGNS } from '../classes/watch/signs'
import { formatLabel } from './words/labels'

const types = Object.values(TYPES)
/** What is said beside an answer, with the figures it may name. */
type Told = Readonly<{ first: string; all: readonly string[]; request: unknown }>

const random = createRng(23)
const pick = <T>(all: readonly T[]): T => all[Math.floor(random.uniform() * all.length)]
const maybe = <T>(value: T, chance = 0.5): T[] => (random.uniform() < chance ? [value] : [])
const between = (low: number, high: number) => Math.round(10 * (low + (high - low) * random.uniform())) / 10
const marksOn = (bikeType: BikeType): Marks =>
  Object.fromEntries(axesOf(bikeType).map((axis) => [axis, pick(positionsOf(bikeType.axes[axis]!.scale)).label]))
const firstSentence = (text: string): string => /^.*?[.!?](?=\s|$)/.exec(text)?.[0] ?? text
const wordsOf = (text: string): number => text.split(/\s+/).filter((word) => /[\p{L}\p{N}]/u.test(word)).length

function randomFindings(): Finding[] {
  const daysAgo = pick([0, 1, 1.4, 9, 40])
  const sign = pick(SIGNS)
  return [
    ...maybe<Finding>({ kind: 'kneeAngle', deg: between(8, 50), daysAgo }),
    ...maybe<Finding>({ kind: 'plumb', mm: between(-60, 60), daysAgo }),
    ...maybe<Finding>({ kind: 'tilt', deg: between(-9, 6), shape: pick(['flat', 'tailKick', 'curved'] as const) }),
    ...maybe<Finding>({ kind: 'barsAgainstSaddle', mm: between(-90, 110) }),
    ...maybe<Finding>({ kind: 'elbows', seen: pick(['locked', 'soft', 'cramped'] as const) }),
    ...maybe<Finding>({ kind: 'reachFeel', seen: pick(['stretched', 'right', 'cramped'] as const) }),
    ...maybe<Finding>({
      kind: 'changed',
      what: pick(['shoes', 'numbers', 'saddle'] as const),
      daysAgo: between(0, 29),
    }),
    ...maybe<Finding>({ kind: 'seen', region: sign.region, what: sign.sign }),
  ]
}

function explained(): Told {
  const bikeType = pick(types)
  const request = {
    bikeType,
    marks: marksOn(bikeType),
    complaints: [1, ...maybe(2, 0.3)].map(() => ({
      what: pick(COMPLAINTS),
      strength: Math.floor(11 * random.uniform()),
      ...(random.uniform() < 0.3 && { when: pick(MOMENTS) }),
    })),
    ...(random.uniform() < 0.15 && { health: [pick(HEALTH)] }),
    findings: randomFindings(),
    school: { foreAft: pick(['plumb', 'midFoot', 'balance', 'unused'] as const) },
  }
  const told = explain(request)
  const { change, sentence } = told
  // Figures are those of the data beside them.
  if (change?.mm !== undefined) {
    expect(sentence).toContain(`${Math.abs(Math.round(change.mm))} mm`)
    if (change.axis !== 'tilt') {
      expect(sentence).toContain(formatLabel(bikeType, change.axis, change.to!))
      expect(positionsOf(bikeType.axes[change.axis]!.scale).map(({ label }) => label)).toContain(change.to)
    }
  }
  if (change?.deg !== undefined) expect(sentence).toContain(`${Math.abs(change.deg)}°`)
  // No order beside what cannot be done.
  if (!change) expect(sentence).not.toMatch(/(^|[.:] )(Raise|Lower|Move|Lift) the (seat|bars|saddle)/)
  return {
    first: firstSentence(sentence),
    all: [
      sentence,
      ...told.checkFirst,
      ...told.conflicts,
      ...told.causes.flatMap((one) => [...one.for, ...one.against]),
    ],
    request,
  }
}

function translated(): Told {
  const [from, to] = [pick(types), pick(types)]
  const request = { from: { bikeType: from, marks: marksOn(from) }, to: { bikeType: to } }
  const told = translate(request)
  for (const axis of axesOf(to)) expect(told.sentence).toContain(formatLabel(to, axis, told.marks[axis]!))
  return { first: firstSentence(told.sentence), all: [told.sentence, ...told.because], request }
}

function recommended(): Told {
  const bikeType = pick(types)
  const at = marksOn(bikeType)
  const evidence: Evidence[] = [
    ...maybe<Evidence>({ kind: 'stature', mm: between(1500, 1950) }, 0.8),
    ...maybe<Evidence>({ kind: 'rider', experience: pick(['new', 'regular', 'experienced'] as const) }),
    ...maybe<Evidence>({ kind: 'kneeAngle', deg: between(15, 48), by: 'goniometer', at }, 0.8),
    ...maybe<Evidence>({ kind: 'plumb', mm: between(-40, 40), at }, 0.7),
    ...maybe<Evidence>({ kind: 'elbows', seen: pick(['locked', 'soft', 'cramped'] as const), at }),
    ...maybe<Evidence>({ kind: 'clearance', seen: pick(['clear', 'touches'] as const), at }),
  ]
  const school = { order: pick(['saddleFirst', 'heightsFirst'] as const), foreAft: pick(['plumb', 'unused'] as const) }
  const request = { bikeType, evidence, school, samples: 300 }
  const { next, bars } = recommend(request)
  for (const { axis, to, from } of next.moves) {
    const labels = positionsOf(bikeType.axes[axis]!.scale).map(({ label }) => label)
    expect(labels).toContain(to)
    if (next.kind === 'start' || (next.kind === 'change' && to !== from))
      expect(next.sentence).toContain(formatLabel(bikeType, axis, to))
  }
  return {
    first: firstSentence(next.sentence),
    all: [next.sentence, bars.sentence, ...next.because],
    request,
  }
}

const RENDERED = [
  { name: 'explain', count: 1500, tell: explained },
  { name: 'translate', count: 350, tell: translated },
  { name: 'recommend', count: 150, tell: recommended },
] as const

test.each(RENDERED)('sentences of $count random answers of $name keep the rules', ({ count, tell }) => {
  const faults = new Set<string>()
  for (let i = 0; i < count; i++) {
    const { first, all } = tell()
    if (wordsOf(first) > 25) faults.add(`${wordsOf(first)} words: ${first}`)
    for (const text of all) {
      for (const one of text.split(/(?<=[.!?]) /)) {
        const units = new Set(one.match(/\d (?:mm|cm)\b/g)?.map((unit) => unit.slice(2)))
        if (units.size > 1) faults.add(`two units: ${one}`)
      }
      if (/[.,;:!?]\s*[.,;:!?]/.test(text.replaceAll('…', ''))) faults.add(`double punctuation: ${text}`)
      if (/\b1 (days|marks|weeks|months|riders|weeks|turns)\b|\bone marks\b|\bNaN\b|undefined|\bnull\b|  /.test(text))
        faults.add(`odd: ${text}`)
      if (/\b1 day ago\b/.test(text)) faults.add(`yesterday: ${text}`)
    }
  }
  expect([...faults].slice(0, 12)).toEqual([])
})
