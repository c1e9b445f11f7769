import type { Evidence } from '../../riders/evidence/registry'
import { HOLES_BIKE } from '../../testing/meanRider'
import { barsFinding, bikeChange, changesOf, findingOfNote, findingsOfSetup, viewFinding } from './findingsFrom'

const marks = { seatHeight: '8', seatSlide: 'D', barHeight: '6', barSlide: '0' }
const school = { plumbFrom: 'front' } as const
const ofRows = (evidence: readonly Evidence[], more = {}) =>
  findingsOfSetup({ evidence, marks, daysAgo: 12, otherType: false, ...more }, school)

test('what was read at the marks a set-up ended with counts, the latest of a kind; at other marks it does not', () => {
  const found = ofRows([
    { kind: 'kneeAngle', deg: 44, by: 'goniometer', at: { seatHeight: '6', seatSlide: 'D' } },
    { kind: 'kneeAngle', deg: 33, by: 'gauge', at: { seatHeight: '8', seatSlide: 'D' } },
    { kind: 'kneeAngle', deg: 31, by: 'goniometer', at: { seatHeight: '8', seatSlide: 'D' } },
    { kind: 'plumb', mm: 12, at: { seatHeight: '8', seatSlide: 'B' } },
    { kind: 'elbows', seen: 'locked', at: { barHeight: '6' } },
  ])
  expect(found).toEqual([
    { kind: 'kneeAngle', deg: 31, daysAgo: 12 },
    { kind: 'elbows', seen: 'locked', daysAgo: 12 },
  ])
})

test('a moving leg and a foot on its heel are no findings', () => {
  expect(
    ofRows([
      { kind: 'kneeAngle', deg: 36, by: 'photo', moving: true },
      { kind: 'kneeAngle', deg: 5, by: 'goniometer', foot: 'heel' },
      { kind: 'rocking', seen: 'both', foot: 'heel' },
      { kind: 'plumbByEye', seen: 'overAxle' },
      { kind: 'rider', experience: 'new' },
    ]),
  ).toEqual([])
})

test('feel, clearance, trunk, forearm, heel, foot, a knee that looks right and build arrive', () => {
  const at = { ...marks }
  const found = ofRows([
    { kind: 'reachFeel', seen: 'stretched', at },
    { kind: 'clearance', seen: 'touches', at },
    { kind: 'trunkAngle', deg: 48, at },
    { kind: 'forearmGauge', gapMm: 35, at },
    { kind: 'heelCheck', seen: 'justStraight', at },
    { kind: 'footPitch', deg: 12, at },
    { kind: 'kneeByEye', seen: 'slightBend', at },
    { kind: 'build', torso: 'long', tightHips: true },
  ])
  expect(found.map(({ kind }) => kind)).toEqual([
    'reachFeel',
    'clearance',
    'trunkAngle',
    'forearmGauge',
    'heelCheck',
    'footPitch',
    'kneeByEye',
    'build',
  ])
  expect(found[3]).toEqual({ kind: 'forearmGauge', mm: 35, daysAgo: 12 })
  // A look at other bar marks is no finding for the current ones.
  expect(ofRows([{ kind: 'reachFeel', seen: 'stretched', at: { ...at, barSlide: '2' } }])).toEqual([])
})

test('what an eye saw is a note like one of the class, with its age and type of bike', () => {
  expect(ofRows([{ kind: 'kneeByEye', seen: 'deepBend' }], { otherType: true })).toEqual([
    { kind: 'seen', region: 'knees', what: 'deepBend', daysAgo: 12, otherType: true },
  ])
})

test('a plumb line from the middle of the kneecap is distinguished from its front, a finger further ahead', () => {
  const [found] = findingsOfSetup(
    { evidence: [{ kind: 'plumb', mm: -5 }], marks, daysAgo: 0, otherType: false },
    { plumbFrom: 'middle' },
  )
  // 10 mm (common practice, no source).
  expect(found).toEqual({ kind: 'plumb', mm: 5, daysAgo: 0 })
})

test('a note of the class with its side and whether its cue held; what is felt, and a red flag, are none', () => {
  const note = { side: 'left', held: false, daysAgo: 3 } as const
  expect(findingOfNote({ ...note, sign: 'kneesOut' })).toEqual({
    kind: 'seen',
    region: 'knees',
    what: 'kneesOut',
    side: 'left',
    held: false,
    daysAgo: 3,
  })
  expect(findingOfNote({ ...note, sign: 'bouncing', held: null })).not.toHaveProperty('side')
  for (const sign of ['felt', 'redFlag', 'never heard of']) expect(findingOfNote({ ...note, sign })).toBeNull()
})

test('bars against the saddle by the marks themselves: a mark up is 20 mm higher on this bike', () => {
  const at = (barHeight: string) => (barsFinding(HOLES_BIKE, undefined, { ...marks, barHeight }) as { mm: number }).mm
  expect(at('7') - at('6')).toBeCloseTo(20, 0)
  expect(barsFinding(HOLES_BIKE, undefined, { seatHeight: '8' })).toBeNull()
  // A machine whose post stands 7 mm high brings the bars that much lower against the saddle.
  const high = barsFinding(HOLES_BIKE, { offsetsMm: { seatHeight: 7 } }, marks) as { mm: number }
  const plain = barsFinding(HOLES_BIKE, undefined, marks) as { mm: number }
  expect(plain.mm - high.mm).toBeGreaterThan(6)
  expect(plain.mm - high.mm).toBeLessThanOrEqual(7)
})

test('instructor or nearest screen, whichever lies farther aside', () => {
  const stand = { xM: 5, yM: 5, headingDeg: 0 }
  const room = { instructor: { xM: 5, yM: 1 }, screens: [{ xM: 9, yM: 1 }] }
  expect(viewFinding(stand, room, 0)).toMatchObject({ kind: 'viewAngle', deg: expect.closeTo(45) })
  expect(viewFinding(stand, { ...room, screens: [] }, 0)).toMatchObject({ deg: expect.closeTo(0) })
})

test('what was changed, the latest first: numbers, soles, pedals, and reports; first numbers are none', () => {
  const entry = { set: 'a/usual', marks, footwear: {}, basis: {} }
  expect(changesOf([{ ...entry, daysAgo: 9 }])).toEqual([])
  expect(
    changesOf([
      { ...entry, marks: { ...marks, seatHeight: '9' }, daysAgo: 1, footwear: { soleMm: 20 } },
      { ...entry, daysAgo: 5, basis: { change: { what: 'gelCover', mm: 12 } } },
      { ...entry, set: 'b/usual', marks: {}, daysAgo: 6 },
      { ...entry, daysAgo: 9, footwear: { soleMm: 8 } },
    ]),
  ).toEqual([
    { kind: 'changed', what: 'numbers', daysAgo: 1 },
    { kind: 'changed', what: 'saddle', daysAgo: 5 },
  ])
  expect(
    changesOf([
      { ...entry, daysAgo: 2, footwear: { soleMm: 20 } },
      { ...entry, daysAgo: 9, footwear: { soleMm: 8 } },
    ]),
  ).toEqual([{ kind: 'changed', what: 'shoes', daysAgo: 2 }])
})

test('another type of bike since some rides: by the first of them', () => {
  const rides = [2, 4, 9].map((daysAgo, i) => ({ lineId: i < 2 ? 'a' : 'b', daysAgo }))
  expect(bikeChange(rides)).toEqual({ kind: 'changed', what: 'bike', daysAgo: 4 })
  expect(bikeChange(rides.slice(0, 2))).toBeNull()
  expect(bikeChange([])).toBeNull()
})
