import { HOLES_BIKE } from '../../testing/meanRider'
import { formatBasis, formatChange, formatContactDifference, formatMoved, formatNamedMarks } from './register'

const marks = { seatHeight: '7', seatSlide: 'C', barHeight: '5', barSlide: '2' }

test('which number is which is stated', () => {
  expect(formatNamedMarks(HOLES_BIKE, marks)).toBe('Seat height 7, seat slide C, bar height 5, bar slide +2')
  expect(formatNamedMarks(HOLES_BIKE, { seatHeight: '7' })).toMatch(/seat slide –/)
})

test('what moved, and that nothing did', () => {
  expect(formatMoved(HOLES_BIKE, null, marks)).toBeNull()
  expect(formatMoved(HOLES_BIKE, marks, { ...marks })).toBe('as before')
  expect(formatMoved(HOLES_BIKE, marks, { ...marks, seatHeight: '8', barSlide: '-1' })).toBe(
    'seat height 7 → 8, bar slide +2 → −1',
  )
})

test.each([
  ['setUp', { seen: ['kneeByEye', 'plumb'] }, null, 'set up: knee by eye, plumb line'],
  ['setUp', {}, null, 'set up'],
  ['restored', {}, 'Mon 4 May 2026', 'back to the numbers of Mon 4 May 2026'],
  ['restored', {}, null, 'back to earlier numbers'],
  ['translated', { fromType: 'Sorrel' }, null, 'worked out from Sorrel'],
  ['tape', {}, null, 'from their own bike, by tape'],
  ['change', { change: { what: 'shoes', mm: 6 } }, null, 'new shoes, 6 mm thicker'],
  ['imported', {}, null, 'imported from a file'],
] as const)('why: %p %j', (source, basis, was, said) => {
  expect(formatBasis(source, basis, was)).toBe(said)
})

test('a change that goes the other way is stated the other way', () => {
  expect(formatChange('cleats', -5)).toBe('cleats moved, 5 mm toward the toes')
  expect(formatChange('postSlipped', 25)).toBe('the post had slipped, 25 mm low')
})

test('two positions are distinguished by what one would feel', () => {
  const lengths = { saddleHeightMm: 700, setbackMm: 40, reachMm: 650, stackMm: 680 }
  expect(formatContactDifference(lengths, { ...lengths, stackMm: 681 })).toEqual([
    'Saddle and bars stand in the same place.',
  ])
  expect(formatContactDifference(lengths, { ...lengths, saddleHeightMm: 712, reachMm: 640 })).toEqual([
    'Saddle 12 mm higher.',
    'Reach 10 mm shorter.',
  ])
})
