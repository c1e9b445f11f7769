import { HOLES_BIKE } from '../../testing/meanRider'
import type { Outlier } from '../../bikes/calibration/calibrate'
import { formatDrift } from './machine'
import {
  formatCalibrationRefusal,
  formatDesignPoint,
  formatSlip,
  formatStray,
  formatOutlier,
  formatInputWarning,
} from './calibration'

const readings = [{ marks: { seatHeight: '8' }, lengths: { saddleHeightMm: 712, stackMm: 70.2 } }]
const outlier = (mm: number, reason: Outlier['reason'], length: Outlier['length'] = 'saddleHeightMm') =>
  formatOutlier(HOLES_BIKE, readings, { reading: 0, length, mm, reason })

test('a number that does not fit is stated with its size, its likely cause and what to do', () => {
  expect(outlier(20, { code: 'otherMark', axis: 'seatHeight', label: '9' })).toBe(
    'Reading 1: saddle height 712 mm lies 20 mm over what the others say, and fits seat ' +
      'height 9. Look at the mark and measure again.',
  )
  expect(outlier(-600, { code: 'tenfold' }, 'stackMm')).toBe(
    'Reading 1: stack 70 mm lies 600 mm under what the others say, just a tenth. Read in centimetres? Measure again.',
  )
  expect(outlier(8, { code: 'unexplained' })).toMatch(/8 mm over what the others say\. Measure it again\.$/)
  expect(outlier(50.2, { code: 'roundCentimetres', mm: 50 })).toMatch(/a whole stretch of the tape misread\?/)
  expect(outlier(10.2, { code: 'roundCentimetres', mm: 10 })).toMatch(/a whole centimetre misread\?/)
  expect(outlier(-600, { code: 'inches' }, 'stackMm')).toMatch(/Read in inches\?/)
})

test('where to measure next is stated in the bike’s own labels', () => {
  expect(formatDesignPoint(HOLES_BIKE, { seatHeight: '1', seatSlide: 'G', barHeight: '12', barSlide: '-4' })).toBe(
    'Set the seat height at 1, the seat slide at G, the bar height at 12 and the bar slide ' +
      'at −4; then take the four lengths.',
  )
})

test('why there is no calibration yet', () => {
  expect(formatCalibrationRefusal(HOLES_BIKE, { outcome: 'refused', reason: 'tooManySuspects', count: 9 })).toMatch(
    /^9 numbers do not go together/,
  )
  expect(
    formatCalibrationRefusal(HOLES_BIKE, { outcome: 'refused', reason: 'tooFewMarks', axis: 'barSlide', label: '2' }),
  ).toBe('The bar slide was read at +2 only; read it at a second mark far from there.')
})

test('half of one length is refused with its name and numbers', () => {
  expect(
    formatCalibrationRefusal(HOLES_BIKE, {
      outcome: 'refused',
      reason: 'halfSuspect',
      length: 'stackMm',
      count: 5,
      of: 9,
    }),
  ).toBe(
    '5 of 9 readings of the stack do not go with the others, so neither half can be ' +
      'believed. Take them back and measure the stack again.',
  )
})

test('what strays from the type is stated with its size and way; a slip with the length it goes by', () => {
  expect(formatStray({ code: 'origin', point: 'grip', xMm: -90, yMm: 120 })).toBe(
    'By these readings the grip stands 150 mm from where this type has it: more than a careful guess is off.',
  )
  expect(formatStray({ code: 'direction', axis: 'seatHeight', deg: -18 })).toMatch(/the seat height runs 18° otherwise/)
  expect(formatStray({ code: 'spacing', axis: 'barHeight', share: -0.2 })).toMatch(
    /marks of the bar height lie 20 % closer/,
  )
  expect(formatSlip(HOLES_BIKE, { code: 'reachFromNose' })).toBe(
    'Every reach is short by the saddle’s nose, 150 mm: was the tape held at the nose?',
  )
  expect(formatSlip(HOLES_BIKE, { code: 'stackFromFloor' })).toMatch(
    /axle’s height, 300 mm: was it measured from the floor\?$/,
  )
  expect(formatSlip(HOLES_BIKE, { code: 'heightFromPedal' }, 'imperial')).toMatch(
    /a crank, 6 \d\/\d″|a crank, 6 11\/16″/,
  )
  expect(formatSlip(HOLES_BIKE, { code: 'reversedLabels', axis: 'seatSlide' })).toMatch(
    /^The labels of the seat slide run the other way/,
  )
})

test('a slip needs a confirmation before it is stored: 70 instead of 700, inches, or simply far', () => {
  const anomaly = { length: 'stackMm', mm: 70, expectedMm: 702, code: 'tenfold' } as const
  expect(formatInputWarning(anomaly, 'metric')).toBe('Stack 70 mm, where about 702 mm was expected: was 700 mm meant?')
  expect(formatInputWarning({ ...anomaly, mm: 27.6, code: 'inches' }, 'metric')).toMatch(/was it read in inches\?$/)
  expect(formatInputWarning({ ...anomaly, mm: 900, code: 'far' }, 'imperial')).toBe(
    'Stack 35 7/16″, where about 27 5/8″ was expected: is that right?',
  )
})

test('a machine that disagrees is stated with its likely cause', () => {
  expect(formatDrift({ length: 'saddleHeightMm', mm: -9, cause: 'postSlipped' }, 'metric')).toBe(
    'Saddle height reads 9 mm less than this bike’s last tape: the post may have slipped.',
  )
  expect(formatDrift({ length: 'setbackMm', mm: 25.4, cause: 'saddleSwapped' }, 'imperial')).toMatch(
    /^Setback reads 1″ more/,
  )
})
