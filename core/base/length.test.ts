import fc from 'fast-check'
import { formatBikeLength, formatBodyLength, parseLength } from './length'

const mm = (typed: string, plain: 'mm' | 'cm' | 'in' = 'cm') => {
  const read = parseLength(typed, plain)
  return read.outcome === 'read' ? read.mm : read.reason
}

test.each([
  ['163', 1630],
  ['163 cm', 1630],
  ['163,5', 1635],
  ['1.63 m', 1630],
  ['1,63m', 1630],
  ['1630mm', 1630],
  ['+4', 40],
  ['-2', -20],
  ['−2 cm', -20],
  // The inch is 25.4 mm, the foot 304.8 mm (international yard and pound agreement, 1959; from memory).
  ["5'4", 1625.6],
  ['5\'4"', 1625.6],
  ['5′4″', 1625.6],
  ['5’ 4”', 1625.6],
  ["5''", 127],
  ['5 ft 4 in', 1625.6],
  ['5 feet 4 inches', 1625.6],
  ["5'", 1524],
  ['64 in', 1625.6],
  ['64"', 1625.6],
  ['64 inches', 1625.6],
  ['27 9/16"', 700.0875],
  ["5'4 1/2", 1638.3],
  ["5'4½", 1638.3],
  ['½ in', 12.7],
  ['1/2 in', 12.7],
  ['11/16"', 17.4625],
])('%s is read as %d mm where centimetres are meant', (typed, expected) => {
  expect(mm(typed)).toBeCloseTo(expected, 9)
})

test('a number without a unit takes the field’s own', () => {
  expect([mm('70', 'mm'), mm('70', 'cm'), mm('70', 'in')]).toEqual([70, 700, 1778])
})

test.each([
  ['', 'empty'],
  ['   ', 'empty'],
  ["5'13", 'inchesOverAFoot'],
  ['5\'12"', 'inchesOverAFoot'],
  ['1o3', 'notALength'],
  ['tall', 'notALength'],
  ['5 4', 'notALength'],
  ['1.2.3', 'notALength'],
  ["5'4'3", 'notALength'],
  ['NaN', 'notALength'],
  ['Infinity', 'notALength'],
  ['1/0', 'notALength'],
  ["0/0'", 'notALength'],
  ["5'1/0", 'inchesOverAFoot'],
  ["5'0/0", 'notALength'],
  ['9'.repeat(400), 'notALength'],
  ["-5'4", 'notALength'],
])('"%s" is refused: %s', (typed, reason) => {
  expect(mm(typed)).toBe(reason)
})

test('statures stated in feet are the usual ones, and read back to half an inch', () => {
  expect([1630, 1524, 1829, 1600].map((h) => formatBodyLength(h, 'imperial'))).toEqual(['5′4″', '5′0″', '6′0″', '5′3″'])
  expect(formatBodyLength(1638.3, 'imperial')).toBe('5′4½″')
  expect(formatBodyLength(1635, 'metric')).toBe('163.5 cm')
  expect(['12.7', '25.4', '254'].map((h) => formatBodyLength(Number(h), 'imperial'))).toEqual(['½″', '1″', '10″'])
})

test('lengths of a bike are whole millimetres or sixteenths', () => {
  expect([700, 0, -0.2, -35].map((h) => formatBikeLength(h, 'metric'))).toEqual(['700 mm', '0 mm', '0 mm', '−35 mm'])
  expect([700, 12.7, 25.4, -35, 0.1].map((h) => formatBikeLength(h, 'imperial'))).toEqual([
    '27 9/16″',
    '1/2″',
    '1″',
    '−1 3/8″',
    '0″',
  ])
})

test('what is shown reads back to what it was, within its own rounding', () => {
  fc.assert(
    fc.property(fc.double({ min: 1, max: 2600, noNaN: true }), (length) => {
      expect(Math.abs((mm(formatBodyLength(length, 'imperial')) as number) - length)).toBeLessThanOrEqual(
        25.4 / 4 + 1e-9,
      )
      expect(Math.abs((mm(formatBodyLength(length, 'metric')) as number) - length)).toBeLessThanOrEqual(0.5 + 1e-9)
      expect(Math.abs((mm(formatBikeLength(length, 'metric')) as number) - length)).toBeLessThanOrEqual(0.5 + 1e-9)
      expect(Math.abs((mm(formatBikeLength(-length, 'imperial')) as number) + length)).toBeLessThanOrEqual(
        25.4 / 32 + 1e-9,
      )
    }),
  )
})

test('no typing breaks the reader', () => {
  fc.assert(
    fc.property(fc.string({ unit: fc.constantFrom(...'0123456789.,\'"/½-+ ftincm′″') }), (typed) => {
      const read = parseLength(typed, 'cm')
      if (read.outcome === 'read') expect(Number.isFinite(read.mm)).toBe(true)
    }),
  )
})
