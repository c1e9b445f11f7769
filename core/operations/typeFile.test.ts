import fc from 'fast-check'
import { DEFAULT_EQUIPMENT } from '../bike/equipment'
import { createRng } from '../rng'
import { trueTypeFor } from '../simulated/simulatedTape'
import { HOLES_BIKE } from '../testing/meanRider'
import { parseTypeFile, typeIssues, serializeTypeFile, documentIssues, type BikeTypeDocument } from './typeFile'

const document: BikeTypeDocument = { bikeType: HOLES_BIKE, equipment: DEFAULT_EQUIPMENT }
const issuesOf = (text: string) => {
  const read = parseTypeFile(text)
  return read.outcome === 'refused' ? read.issues : []
}
const changed = (
  change: (file: { types: { bikeType: Record<string, never>; sheet: Record<string, never> }[] }) => void,
): string => {
  const file = JSON.parse(serializeTypeFile([document]))
  change(file)
  return JSON.stringify(file)
}

test('export ∘ import is the identity, to the last digit', () => {
  fc.assert(
    fc.property(fc.integer(), (seed) => {
      const bikeType = trueTypeFor(
        HOLES_BIKE,
        { originMm: 15.123, directionDeg: 2.7, spacingShare: 0.041 },
        createRng(seed),
      )
      const text = serializeTypeFile([{ ...document, bikeType }])
      const read = parseTypeFile(text)
      expect(read).toEqual({ outcome: 'read', types: [{ ...document, bikeType }] })
      expect(read.outcome === 'read' && serializeTypeFile(read.types)).toBe(text)
    }),
  )
})

test.each([
  [
    'two marks of one label',
    (f) => (f.types[0].bikeType.axes['seatHeight'].scale.marks[3].label = '1'),
    '/types/0/bikeType/axes/seatHeight/scale/marks/3/label',
    /twice/,
  ],
  [
    'positions not in order',
    (f) => (f.types[0].bikeType.axes['seatSlide'].scale.marks[2].mm = 500),
    '/types/0/bikeType/axes/seatSlide/scale/marks/3/mm',
    /order/,
  ],
  [
    'a bar below the axle',
    (f) => (f.types[0].bikeType.gripOrigin.yMm = -40),
    '/types/0/bikeType/gripOrigin/yMm',
    /bars below the crank axle/,
  ],
  [
    'a saddle below the axle',
    (f) => (f.types[0].bikeType.seatOrigin.yMm = -400),
    '/types/0/bikeType/seatOrigin/yMm',
    /saddle below the crank axle/,
  ],
  [
    'a hundred axes',
    (f) =>
      Array.from(
        { length: 100 },
        (_, i) => (f.types[0].bikeType.axes[`axis${i}`] = f.types[0].bikeType.axes.barHeight),
      ),
    '/types/0/bikeType/axes/axis99',
    /not a field/,
  ],
  [
    'a number that is none',
    (f) => (f.types[0].bikeType.crankMm = null),
    '/types/0/bikeType/crankMm',
    /must be a number/,
  ],
  ['another format', (f) => (f.format = 'something'), '/format', /must be/],
  ['a crank of 17 mm', (f) => (f.types[0].bikeType.crankMm = 17), '/types/0/bikeType/crankMm', /at least 50/],
  ['no types', (f) => (f.types = []), '/types', /must not be empty/],
  ['one name twice', (f) => f.types.push(structuredClone(f.types[0])), '/types/1/bikeType/name', /twice in this file/],
  // eslint-disable-next-line @typescript-eslint/no-explicit-any
] as [string, (file: any) => unknown, string, RegExp][])(
  '%s is refused with its place and reason',
  (_, change, pointer, reason) => {
    expect(issuesOf(changed(change))).toContainEqual({ pointer, reason: expect.stringMatching(reason) })
  },
)

test('what is no JSON says so; NaN cannot be written and so cannot be read', () => {
  expect(issuesOf('{"format": NaN}')[0].reason).toMatch(/not JSON/)
  expect(issuesOf('')[0].reason).toMatch(/not JSON/)
})

test('one type alone, for the editor: the same issues with their own places', () => {
  expect(documentIssues(document)).toEqual([])
  expect(documentIssues({ ...document, bikeType: { ...HOLES_BIKE, name: '' } })).toContainEqual({
    pointer: '/bikeType/name',
    reason: 'must not be empty',
  })
  expect(documentIssues({ ...document, bikeType: { ...HOLES_BIKE, crankMm: Number.NaN } })).toContainEqual({
    pointer: '/bikeType/crankMm',
    reason: 'must be a number',
  })
  expect(typeIssues(HOLES_BIKE, '')).toEqual([])
})
