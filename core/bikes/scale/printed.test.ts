import fc from 'fast-check'
import { compactLabels, describeScale, parseLabels, scaleOf } from './printed'
import { findPosition, nearestPosition, positionsOf, type Scale } from './scale'

const read = (typed: string) => {
  const answer = parseLabels(typed)
  return answer.outcome === 'read' ? answer.labels.join('') : `${answer.reason} ${answer.at}`
}

test('ranges and single labels, in any order, letters skipped as on real posts', () => {
  expect(read('1-5')).toBe('12345')
  expect(read('5–1')).toBe('54321')
  expect(read('A-H J-N')).toBe('ABCDEFGHJKLMN')
  expect(read('c-a, x')).toBe('cbax')
  expect(read('B A C')).toBe('BAC')
  expect(read('-2 -1 0 1')).toBe('-2-101')
})

test('what contradicts itself is refused with its place', () => {
  expect(read('')).toBe('empty ')
  expect(read('1-5 3')).toBe('twice 3')
  expect(read('A-7')).toBe('badRange A-7')
  expect(read('1-200')).toBe('tooMany 1-200')
})

const anyScale: fc.Arbitrary<Scale> = fc.oneof(
  fc
    .record({
      count: fc.integer({ min: 2, max: 26 }),
      spacing: fc.double({ min: 5, max: 40, noNaN: true }),
      first: fc.integer({ min: -200, max: 200 }),
      down: fc.boolean(),
      letters: fc.boolean(),
      halfMarks: fc.boolean(),
    })
    .map(({ count, spacing, first, down, letters, halfMarks }) => ({
      marks: Array.from({ length: count }, (_, i) => ({
        label: letters ? String.fromCharCode(65 + i) : String(i + 1),
        mm: first + i * spacing * (down ? -1 : 1),
      })),
      halfMarks,
    })),
  fc
    .record({
      min: fc.integer({ min: -20, max: 0 }),
      span: fc.integer({ min: 2, max: 40 }),
      resolution: fc.constantFrom(1, 0.5, 0.25, 0.1),
      mmPerUnit: fc.constantFrom(10, -10, 25.4, -25.4, 9.87),
      mmAtZero: fc.integer({ min: -100, max: 100 }),
    })
    .map(({ min, span, ...rest }) => ({ ruler: { min, max: min + span, ...rest } })),
)

test(
  'a scale described and built again is the same scale, for holes, letters, rulers, plus ' + 'and minus, either way',
  () => {
    fc.assert(
      fc.property(anyScale, (scale) => {
        const again = scaleOf(describeScale(scale))
        expect(positionsOf(again).map((s) => s.label)).toEqual(positionsOf(scale).map((s) => s.label))
        positionsOf(again).forEach((position, i) => expect(position.mm).toBeCloseTo(positionsOf(scale)[i].mm, 2))
      }),
    )
  },
)

test('label → mm → label comes back, for every scale form and every mark, half marks too', () => {
  fc.assert(
    fc.property(anyScale, (scale) => {
      for (const position of positionsOf(scale)) {
        expect(nearestPosition(scale, position.mm).label).toBe(position.label)
        expect(findPosition(scale, position.label)).toMatchObject({ outcome: 'found', stop: position })
      }
    }),
  )
})

test('labels typed again read back the same', () => {
  fc.assert(
    fc.property(
      anyScale.filter((s) => 'marks' in s),
      (scale) => {
        const labels = 'marks' in scale ? scale.marks.map((m) => m.label) : []
        expect(parseLabels(compactLabels(labels))).toEqual({ outcome: 'read', labels })
      },
    ),
  )
  expect(compactLabels(['A', 'B', 'C', 'D', 'F', '1', '2'])).toBe('A-D F 1 2')
})

test('uneven marks are stored as they are', () => {
  const scale = {
    marks: [
      { label: '1', mm: 0 },
      { label: '2', mm: 20 },
      { label: '3', mm: 55 },
    ],
    halfMarks: false,
  }
  expect(describeScale(scale)).toEqual({ form: 'irregular', scale })
  expect(scaleOf(describeScale(scale))).toBe(scale)
})
