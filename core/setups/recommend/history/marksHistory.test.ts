import type { Evidence } from '../../../riders/evidence/registry'
import { HOLES_BIKE } from '../../../testing/meanRider'
import { lastReadings } from './lastReadings'
import { marksHistory, defaultSlide } from './marksHistory'
import { schoolOf } from '../../../base/school/school'

const knee = (at: Evidence['at'], deg = 30): Evidence => ({ kind: 'kneeAngle', deg, by: 'goniometer', at })
test('an axis stands where the last row that named it left it', () => {
  const history = marksHistory(HOLES_BIKE, [
    knee({ seatHeight: '8', seatSlide: 'C' }),
    knee({ seatHeight: '9' }),
    { kind: 'set', at: { seatSlide: 'B' } },
  ])
  expect(history.at[1]).toEqual({ seatHeight: '9', seatSlide: 'C' })
  expect(history.now).toEqual({ seatHeight: '9', seatSlide: 'B' })
})

test('a slide that nobody named stands as for the start', () => {
  const history = marksHistory(HOLES_BIKE, [
    { kind: 'landmarkAtMark', landmark: 'hipCrest', at: { seatHeight: '11' } },
    knee({ seatHeight: '8' }),
  ])
  expect(history.at).toEqual([
    { seatHeight: '11', seatSlide: defaultSlide(HOLES_BIKE) },
    { seatHeight: '8', seatSlide: defaultSlide(HOLES_BIKE) },
  ])
  expect(history.now).toEqual({ seatHeight: '8' })
})

test('only readings taken where the saddle stands now speak for it', () => {
  const evidence = [
    knee({ seatHeight: '8', seatSlide: 'D' }, 30),
    knee({ seatHeight: '9', seatSlide: 'D' }, 40),
    { kind: 'set', at: { seatHeight: '8' } } as Evidence,
  ]
  const { at, now } = marksHistory(HOLES_BIKE, evidence)
  expect(lastReadings(evidence, at, now, schoolOf())).toMatchObject({
    knee: { deg: 30 },
    kneeInRange: true,
    plumbEverTaken: false,
  })
  expect(lastReadings(evidence, at, { ...now, seatHeight: '9' }, schoolOf())).toMatchObject({
    knee: { deg: 40 },
    kneeInRange: false,
  })
  expect(lastReadings(evidence, at, { ...now, seatHeight: '7' }, schoolOf()).knee).toBeUndefined()
})

test('window ends belong to the window; the schools of the heel check decide by their definition', () => {
  const here = { seatHeight: '8', seatSlide: 'D' }
  const holds = (rows: Evidence[], school = {}) => {
    const { at, now } = marksHistory(HOLES_BIKE, rows)
    return lastReadings(rows, at, now, schoolOf(school)).kneeInRange
  }
  expect(holds([knee(here, 25)])).toBe(true)
  expect(holds([knee(here, 35)])).toBe(true)
  expect(holds([knee(here, 35.1)])).toBe(false)
  const heel = (seen: 'justStraight' | 'stillBent' | 'cannotReach'): Evidence => ({ kind: 'heelCheck', seen, at: here })
  expect(holds([heel('justStraight')], { heelCheck: 'target' })).toBe(true)
  expect(holds([knee(here, 30), heel('cannotReach')], { heelCheck: 'ceiling' })).toBe(false)
  expect(holds([knee(here, 30), heel('stillBent')], { heelCheck: 'ceiling' })).toBe(true)
  expect(holds([knee(here, 30), heel('cannotReach')])).toBe(true)
})

test('plumb windows by school: the axle, the mid-foot, or only against gross errors', () => {
  const here = { seatHeight: '8', seatSlide: 'D' }
  const holds = (mm: number, foreAft: 'plumb' | 'midFoot' | 'balance') => {
    const rows: Evidence[] = [{ kind: 'plumb', mm, at: here }]
    const { at, now } = marksHistory(HOLES_BIKE, rows)
    return lastReadings(rows, at, now, schoolOf({ foreAft })).plumbInRange
  }
  expect([0, -60, 18].map((mm) => holds(mm, 'plumb'))).toEqual([true, false, false])
  expect([0, -60, 18].map((mm) => holds(mm, 'midFoot'))).toEqual([false, true, false])
  expect([0, -60, 18].map((mm) => holds(mm, 'balance'))).toEqual([true, true, true])
})
