import fc from 'fast-check'
import { findPosition, middlePosition, nearestPosition, spacingMm, positionsOf, type Scale } from './scale'

const holes: Scale = { marks: ['1', '2', '3', '4'].map((label, i) => ({ label, mm: 20 * i })), halfMarks: true }
const letters: Scale = {
  marks: ['A', 'B', 'D', 'E'].map((label, i) => ({ label, mm: -30 + 12.7 * i })),
  halfMarks: true,
}
const ruler: Scale = { ruler: { min: -3, max: 3, resolution: 0.5, mmPerUnit: -10, mmAtZero: 4 } }
const labels = (scale: Scale) => positionsOf(scale).map((s) => s.label)

test('half marks are named as people name them: 2.5 between numbers, B/D between letters', () => {
  expect(labels(holes)).toEqual(['1', '1.5', '2', '2.5', '3', '3.5', '4'])
  expect(labels(letters)).toEqual(['A', 'A/B', 'B', 'B/D', 'D', 'D/E', 'E'])
  expect(findPosition(letters, 'B/D')).toEqual({
    outcome: 'found',
    stop: { label: 'B/D', mm: expect.closeTo(-10.95, 9) },
  })
})

test('a ruler spells its labels as the shortest decimal, with an ASCII hyphen and no plus', () => {
  expect(labels(ruler)).toEqual(['-3', '-2.5', '-2', '-1.5', '-1', '-0.5', '0', '0.5', '1', '1.5', '2', '2.5', '3'])
  const tenths: Scale = { ruler: { min: -0.2, max: 0.2, resolution: 0.1, mmPerUnit: 10, mmAtZero: 0 } }
  expect(labels(tenths)).toEqual(['-0.2', '-0.1', '0', '0.1', '0.2'])
})

test('the larger number may lie farther back: mm = mmAtZero + value · mmPerUnit', () => {
  expect(findPosition(ruler, '2.5')).toEqual({ outcome: 'found', stop: { label: '2.5', mm: -21 } })
})

test('a leading plus is read; a value between two steps is not on the ruler', () => {
  expect(findPosition(ruler, '+1.5')).toMatchObject({ outcome: 'found', stop: { label: '1.5' } })
  expect(findPosition(ruler, '1.2')).toEqual({ outcome: 'noSuchLabel', nearest: ['1', '1.5'] })
  expect(findPosition(holes, '9')).toEqual({ outcome: 'noSuchLabel', nearest: ['4', '3.5'] })
  expect(findPosition(letters, 'C')).toMatchObject({ outcome: 'noSuchLabel' })
})

test('the start lies nearest 0, or in the middle where the scale does not reach 0', () => {
  expect(middlePosition(letters).label).toBe('D/E')
  expect(
    middlePosition({
      marks: [
        { label: 'X', mm: 40 },
        { label: 'Y', mm: 60 },
        { label: 'Z', mm: 80 },
      ],
      halfMarks: false,
    }).label,
  ).toBe('Y')
})

test('label to millimetre and back is the identity on every stop of every kind of scale', () => {
  const printed = fc
    .tuple(
      fc.integer({ min: 2, max: 30 }),
      fc.double({ min: 3, max: 40, noNaN: true }),
      fc.boolean(),
      fc.integer({ min: -200, max: 200 }),
    )
    .map(([count, spacing, halfMarks, from]): Scale => ({
      marks: Array.from({ length: count }, (_, i) => ({ label: String(i + 1), mm: from + i * spacing })),
      halfMarks,
    }))
  const ruled = fc
    .tuple(
      fc.integer({ min: -20, max: 0 }),
      fc.integer({ min: 1, max: 20 }),
      fc.constantFrom(0.1, 0.2, 0.25, 0.5, 1),
      fc.constantFrom(-25.4, -10, 10, 25.4),
    )
    .map(([min, max, resolution, mmPerUnit]): Scale => ({ ruler: { min, max, resolution, mmPerUnit, mmAtZero: 7 } }))
  fc.assert(
    fc.property(fc.oneof(printed, ruled), (scale) => {
      for (const position of positionsOf(scale)) {
        expect(findPosition(scale, position.label)).toEqual({ outcome: 'found', stop: position })
        expect(nearestPosition(scale, position.mm)).toEqual(position)
      }
    }),
  )
})

test('the spacing is the smallest step a hand can set; a scale of one mark has none', () => {
  expect(spacingMm(holes)).toBe(10)
  expect(spacingMm({ marks: [{ label: '1', mm: 0 }], halfMarks: true })).toBe(0)
})
