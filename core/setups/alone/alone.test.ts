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

test('the order: a word, the landmark, too low, then what suits, forearm, heel, a look down, elbows', () => {
  expect(step([])).toEqual({ kind: 'talk' })
  expect(step([NEW])).toEqual({ kind: 'landmark', landmark: 'hipCrest' })
  const low = step([NEW, CREST])
  expect(low).toMatchObject({ kind: 'set', why: 'low' })
  const lowRows = whenSet([NEW, CREST])
  const yours = step(lowRows)
  expect(yours).toMatchObject({ kind: 'set', why: 'yours' })
  const seat = (label?: string) => positionsOf(HOLES_BIKE.axes.seatHeight.scale).find((one) => one.label === label)!.mm
  const [from, to] = [standing(lowRows), standing(whenSet(lowRows))]
  expect(seat(to.seatHeight) - seat(from.seatHeight)).toBeGreaterThanOrEqual(25)
  expect(movedAxes(from, to)).toEqual(['seatHeight'])
  let rows = whenSet(lowRows)
  expect(step(rows).kind).toBe('forearm')
  rows = [...rows, { kind: 'forearmGauge', gapMm: 0, ...own(rows) }]
  if (step(rows).kind === 'set') rows = whenSet(rows)
  expect(step(rows).kind).toBe('heel')
  rows = [...rows, { kind: 'heelCheck', seen: 'justStraight', ...own(rows) }]
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

test('the heel is a ceiling: where it did not reach, the seat goes no higher, whatever else is read', () => {
  for (let seed = 1; seed <= 12; seed++) {
    const rider = drawRider(POPULATIONS.wider, HOLES_BIKE, createRng(seed))
    const { evidence, marks } = simulateAlone(rider, { samples: 600 })
    const heights = evidence.flatMap((row) =>
      row.kind === 'heelCheck' && row.seen === 'cannotReach' ? [Number(row.at?.seatHeight)] : [],
    )
    expect(Number(marks.seatHeight)).toBeLessThanOrEqual(Math.min(Infinity, ...heights))
  }
})

test('after the first mount at most two changes, each a mark or two of an axis', () => {
  for (let seed = 21; seed <= 32; seed++) {
    const { evidence } = simulateAlone(drawRider(POPULATIONS.wider, HOLES_BIKE, createRng(seed)), { samples: 600 })
    const mounted = evidence.findIndex(({ kind }) => kind === 'heelCheck')
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
