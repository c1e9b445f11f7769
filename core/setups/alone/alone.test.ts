import { createRng } from '../../base/rng'
import { positionsOf } from '../../bikes/scale/scale'
import { movedAxes } from '../../base/conventions'
import { POPULATIONS, drawRider } from '../../simulated/simulatedRider'
import { simulateAlone } from '../../simulated/simulatedAlone'
import { HOLES_BIKE } from '../../testing/meanRider'
import type { Evidence } from '../../riders/evidence/registry'
import { alone, type AloneRequest } from './alone'

const NEW: Evidence = { kind: 'rider', experience: 'new' }
const CREST: Evidence = { kind: 'landmarkAtMark', landmark: 'hipCrest', at: { seatHeight: '10' }, readBy: 'rider' }
const step = (evidence: readonly Evidence[], more: Partial<AloneRequest> = {}) =>
  alone({ bikeType: HOLES_BIKE, evidence, samples: 600, ...more }).step

/** The rows with the step's marks set on the machine. */
function whenSet(evidence: readonly Evidence[], more?: Partial<AloneRequest>): Evidence[] {
  const found = step(evidence, more)
  if (found.kind !== 'set') throw new Error(`${found.kind} is nothing to set.`)
  return [...evidence, { kind: 'set', at: found.marks }]
}
const standing = (evidence: readonly Evidence[]) => evidence.findLast(({ kind }) => kind === 'set')!.at!
const own = (evidence: readonly Evidence[]) => ({ readBy: 'rider', at: standing(evidence) }) as const

test('the order: a word, the landmark, too low, what suits, forearm, heel, knee, a look down, elbows', () => {
  expect(step([])).toEqual({ kind: 'talk' })
  expect(step([NEW])).toEqual({ kind: 'landmark', landmark: 'hipCrest' })
  const low = step([NEW, CREST])
  expect(low).toMatchObject({ kind: 'set', why: 'low' })
  let lowRows = whenSet([NEW, CREST])
  expect(step(lowRows).kind).toBe('heel')
  lowRows = [...lowRows, { kind: 'heelCheck', seen: 'stillBent', ...own(lowRows) }]
  const yours = step(lowRows)
  expect(yours).toMatchObject({ kind: 'set', why: 'yours' })
  const seat = (label?: string) => positionsOf(HOLES_BIKE.axes.seatHeight.scale).find((one) => one.label === label)!.mm
  const [from, to] = [standing(lowRows), standing(whenSet(lowRows))]
  expect(seat(to.seatHeight) - seat(from.seatHeight)).toBeGreaterThanOrEqual(25)
  let rows = whenSet(lowRows)
  expect(step(rows).kind).toBe('forearm')
  rows = [...rows, { kind: 'forearmGauge', gapMm: 0, ...own(rows) }]
  if (step(rows).kind === 'set') rows = whenSet(rows)
  expect(step(rows).kind).toBe('heel')
  rows = [...rows, { kind: 'heelCheck', seen: 'justStraight', ...own(rows) }]
  expect(step(rows).kind).toBe('knee')
  rows = [...rows, { kind: 'kneeByEye', seen: 'slightBend', ...own(rows) }]
  expect(step(rows).kind).toBe('lookDown')
  rows = [...rows, { kind: 'plumbByEye', seen: 'overAxle', ...own(rows) }]
  expect(step(rows).kind).toBe('elbows')
})

test('who rides long is not shown too low; the landmark is the school’s, without a tape the hip crest', () => {
  const experienced: Evidence = { kind: 'rider', experience: 'experienced' }
  expect(step([experienced, CREST])).toMatchObject({ kind: 'set', why: 'yours' })
  expect(step([NEW], { school: { startLandmark: 'raisedThigh' } })).toMatchObject({ landmark: 'raisedThigh' })
  expect(step([NEW], { school: { startLandmark: 'percent109' } })).toMatchObject({ landmark: 'hipCrest' })
})

/** The lowest seat of rows that say it was too high there; the rider's end must not be above it. */
function endsAbove(seed: number, isTooHigh: (row: Evidence) => boolean, school: AloneRequest['school']): boolean {
  const rider = drawRider(POPULATIONS.wider, HOLES_BIKE, createRng(seed))
  const { evidence, marks } = simulateAlone(rider, { samples: 600, school })
  const heights = evidence.flatMap((row) => (isTooHigh(row) ? [Number(row.at?.seatHeight)] : []))
  return Number(marks.seatHeight) > Math.min(Infinity, ...heights)
}

test.each([{ heelCheck: 'ceiling' }, { foot: 'level' }] as const)(
  'where the heel is a ceiling (%p), the seat goes no higher than where it did not reach, whatever else is read',
  (school) => {
    const isTooHigh = (row: Evidence) => row.kind === 'heelCheck' && row.seen === 'cannotReach'
    for (let seed = 1; seed <= 8; seed++) expect([seed, endsAbove(seed, isTooHigh, school)]).toEqual([seed, false])
  },
)

test('no seat is raised above one where the knee was felt locked', () => {
  const isTooHigh = (row: Evidence) => row.kind === 'kneeByEye' && row.seen === 'locked'
  for (let seed = 41; seed <= 52; seed++) expect([seed, endsAbove(seed, isTooHigh, {})]).toEqual([seed, false])
})

test('after the first mount at most two changes, each a mark or two of an axis', () => {
  for (let seed = 21; seed <= 32; seed++) {
    const { evidence } = simulateAlone(drawRider(POPULATIONS.wider, HOLES_BIKE, createRng(seed)), { samples: 600 })
    const mounted = evidence.findIndex(({ kind }) => kind === 'kneeByEye')
    const before = evidence.slice(0, mounted).findLast(({ kind }) => kind === 'set')!
    const sets = [before, ...evidence.slice(mounted).filter(({ kind }) => kind === 'set')]
    expect(sets.length).toBeLessThanOrEqual(3)
    sets.slice(1).forEach((row, i) => {
      for (const axis of movedAxes(sets[i].at!, row.at!)) {
        const labels = positionsOf(HOLES_BIKE.axes[axis]!.scale).map(({ label }) => label)
        const marksMoved = Math.abs(labels.indexOf(row.at![axis]!) - labels.indexOf(sets[i].at![axis]!))
        expect(marksMoved).toBeLessThanOrEqual(2)
      }
    })
  }
})

test('a bike that ends below the rider says so at the end, for an instructor to see', () => {
  const giant: Evidence = { kind: 'stature', mm: 2200 }
  const top: Evidence = { kind: 'landmarkAtMark', landmark: 'hipCrest', at: { seatHeight: '15' }, readBy: 'rider' }
  let rows: Evidence[] = [NEW, giant, top]
  for (let found = step(rows); found.kind !== 'end'; found = step(rows)) {
    if (found.kind === 'set') rows = [...rows, { kind: 'set', at: found.marks }]
    else if (found.kind === 'forearm') rows = [...rows, { kind: 'forearmGauge', gapMm: 0, ...own(rows) }]
    else if (found.kind === 'heel') rows = [...rows, { kind: 'heelCheck', seen: 'stillBent', ...own(rows) }]
    else if (found.kind === 'knee') rows = [...rows, { kind: 'kneeByEye', seen: 'deepBend', ...own(rows) }]
    else if (found.kind === 'lookDown') rows = [...rows, { kind: 'plumbByEye', seen: 'overAxle', ...own(rows) }]
    else rows = [...rows, { kind: 'elbows', seen: 'soft', ...own(rows) }]
  }
  expect(step(rows)).toMatchObject({ kind: 'end', cannotFit: true })
})

test('riders’ own readings say less than an instructor’s of the same', () => {
  const spread = (readBy?: 'rider') => {
    const rows: Evidence[] = [NEW, { ...CREST, readBy }]
    const at = { seatHeight: '8', seatSlide: 'D', barHeight: '6', barSlide: '0' }
    return alone({
      bikeType: HOLES_BIKE,
      evidence: [...rows, { kind: 'set', at }, { kind: 'heelCheck', seen: 'justStraight', at, readBy }],
      samples: 2000,
    }).advice!.belief.kneeFlexionDeg.sd
  }
  expect(spread('rider')).toBeGreaterThan(1.2 * spread())
})
