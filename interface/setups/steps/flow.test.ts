import { evidenceLevel } from '@/core/riders/evidence/evidenceLevel'
import type { Evidence } from '@/core/riders/evidence/registry'
import { HOLES_BIKE } from '@/core/testing/meanRider'
import { hasAllMarks, differingAxes, latestSinceSet, resumeStep, currentMarks, wasSet, type Row } from './flow'
import { drawnMarks } from '../scales/drawnMarks'

const rows = (...evidence: Evidence[]): Row[] => evidence.map((row, i) => ({ id: String(i), row }))
const landmark: Evidence = { kind: 'landmarkAtMark', landmark: 'hipCrest', at: { seatHeight: '10' } }
const set: Evidence = { kind: 'set', at: { seatHeight: '8', seatSlide: 'D' } }
const eye: Evidence = { kind: 'kneeByEye', seen: 'slightBend', at: { seatHeight: '8', seatSlide: 'D' } }

test('a set-up is taken up where it was left', () => {
  expect(resumeStep([])).toBe('talk')
  expect(resumeStep(rows({ kind: 'rider', experience: 'new' }))).toBe('beside')
  expect(resumeStep(rows(landmark, set))).toBe('knee')
  // With numbers on this type it is asked first whether all is as before, also where answers were carried over.
  expect(resumeStep(rows({ kind: 'rider', experience: 'regular' }), true)).toBe('talk')
  expect(resumeStep(rows({ kind: 'stature', mm: 1700 }), true)).toBe('beside')
  expect(resumeStep(rows(landmark, set, eye, { kind: 'plumb', mm: 3 }))).toBe('cranks')
})

test('a landmark beside the bike is not yet a setting', () => {
  expect(wasSet(rows(landmark))).toBe(false)
  expect(wasSet(rows(landmark, set))).toBe(true)
})

test('an axis stands at the latest mark that names it', () => {
  expect(currentMarks(rows(landmark, set, { kind: 'set', at: { seatHeight: '9' } }))).toEqual({
    seatHeight: '9',
    seatSlide: 'D',
  })
})

test('a look counts only until the saddle is set again', () => {
  expect(latestSinceSet(rows(set, eye), 'kneeByEye')?.id).toBe('1')
  expect(latestSinceSet(rows(set, eye, { kind: 'set', at: { seatHeight: '9' } }), 'kneeByEye')).toBeUndefined()
})

test('how sure: measured before checked before landmark', () => {
  expect(evidenceLevel([landmark, set])).toBe('landmark')
  expect(evidenceLevel([landmark, set, eye])).toBe('checked')
  expect(evidenceLevel([set, eye, { kind: 'kneeAngle', deg: 30, by: 'goniometer' }])).toBe('measured')
})

test('numbers are complete when every axis of the type has its mark', () => {
  const all = { seatHeight: '8', seatSlide: 'D', barHeight: '5', barSlide: '0' }
  expect(hasAllMarks(HOLES_BIKE, all)).toBe(true)
  expect(hasAllMarks(HOLES_BIKE, { ...all, barSlide: undefined })).toBe(false)
  expect(differingAxes(HOLES_BIKE, all, { ...all, seatHeight: '9' })).toEqual(['seatHeight'])
})

test(
  'upright scales are drawn from the highest down, level ones from the rear forward, ' + 'whatever way the labels run',
  () => {
    const texts = (axis: 'seatHeight' | 'seatSlide', type = HOLES_BIKE) =>
      drawnMarks(type, axis, {}, {}, undefined).map((m) => m.text)
    expect(texts('seatHeight')[0]).toBe('15')
    expect(texts('seatSlide')).toEqual(['A', 'B', 'C', 'D', 'E', 'F', 'G'])
    const reversed = {
      ...HOLES_BIKE,
      axes: {
        ...HOLES_BIKE.axes,
        seatSlide: {
          directionDeg: 0,
          scale: { ruler: { min: -1, max: 1, resolution: 1, mmPerUnit: -10, mmAtZero: 0 } },
        },
      },
    }
    expect(texts('seatSlide', reversed)).toEqual(['+1', '0', '−1'])
  },
)
