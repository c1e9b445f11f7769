import { HOLES_BIKE } from '../../testing/meanRider'
import { formatLabel, formatTryAlone } from './labels'
import {
  formatAgo,
  formatDegreesBeside,
  formatHalfMm,
  formatLength,
  formatList,
  formatNaturalFrequency,
  formatRoughLength,
} from './phrases'

test('chances are counts of riders, never 0 or 100', () => {
  expect([0, 0.663, 0.9999].map(formatNaturalFrequency)).toEqual(['under 1 in 100', '66 in 100', 'over 99 in 100'])
})

test('lengths are stated in whole millimetres, cranks in half ones', () => {
  expect([4.4, -12, 20, 34, 100].map((mm) => formatLength(mm))).toEqual(['4 mm', '12 mm', '20 mm', '34 mm', '100 mm'])
  expect([2.5, -5, 172.5].map((mm) => formatHalfMm(mm))).toEqual(['2.5 mm', '5 mm', '172.5 mm'])
})

test('lists end in and', () => {
  expect([[], ['a'], ['a', 'b'], ['a', 'b', 'c']].map(formatList)).toEqual(['', 'a', 'a and b', 'a, b and c'])
})

test('half marks and signs are written as people write them', () => {
  expect(formatLabel(HOLES_BIKE, 'seatHeight', '6.5')).toBe('6½')
  expect(formatLabel(HOLES_BIKE, 'barSlide', '1.5')).toBe('+1.5')
  expect(formatLabel(HOLES_BIKE, 'barSlide', '-2')).toBe('−2')
  expect(formatLabel(HOLES_BIKE, 'barSlide', '0')).toBe('0')
})

test('lengths in inches where the device is set to them', () => {
  expect([4, 34, -99].map((mm) => formatLength(mm, 'imperial'))).toEqual(['3/16″', '1 5/16″', '3 7/8″'])
  expect([34, -99, 4].map((mm) => formatRoughLength(mm, 'metric'))).toEqual(['30 mm', '100 mm', null])
  expect([34, -99, 13, 4].map((mm) => formatRoughLength(mm, 'imperial'))).toEqual(['1½″', '4″', '½″', null])
})

test('marks to try alone are listed, or stated by their ends where they are many', () => {
  expect(formatTryAlone(HOLES_BIKE, 'seatHeight', ['7', '9'], '8')).toBe('may try 7, 9')
  expect(formatTryAlone(HOLES_BIKE, 'barSlide', ['-1.5', '-1', '0', '0.5'], '-0.5')).toBe('may try −1.5 to +0.5')
})

test('degrees beside a window: a decimal only where rounding would carry them over its edge', () => {
  const beside = (deg: number) => formatDegreesBeside(deg, [25, 35])
  expect([24.9, 24.96, 25, 30.4, 34.6, 35.2, 35.04, 40.3].map(beside)).toEqual([
    '24.9°',
    '24.9°',
    '25°',
    '30°',
    '35°',
    '35.2°',
    '35.1°',
    '40°',
  ])
})

test('yesterday is stated as such', () => {
  expect([0.4, 1, 1.9, 2, 20].map(formatAgo)).toEqual(['today', 'yesterday', 'yesterday', '2 days ago', '3 weeks ago'])
})
