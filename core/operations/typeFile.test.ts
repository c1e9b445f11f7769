import fc from 'fast-check'
import { DEFAULT_EQUIPMENT } from '../bikes/bike/equipment'
import { createRng } from '../base/rng'
import { trueTypeFor } from '../simulated/simulatedTape'
import { HOLES_BIKE } from '../testing/meanRider'
import { parseTypeFile, typeIssues, serializeTypeFile, documentIssues, type BikeTypeDocument } from './typeFile'

const document: BikeTypeDocument = { bikeType: HOLES_BIKE, equipment: DEFAULT_EQUIPMENT }
const issuesOf = (text: string) => {
  const read = parseTypeFile(text)
  return read.outcome === 'refused' ? read.issues : []
}
/** The file of one type with a value put in at a place (JSON pointer). */
function changed(pointer: string, value: unknown): string {
  const file = JSON.parse(serializeTypeFile([document])) as Record<string, unknown>
  const path = pointer.slice(1).split('/')
  const held = path.slice(0, -1).reduce((at, key) => at[key] as Record<string, unknown>, file)
  held[path[path.length - 1]] = value
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

const T = '/types/0/bikeType'
const { axes } = HOLES_BIKE
const hundredAxes = Object.fromEntries(Array.from({ length: 100 }, (_, i) => [`axis${i}`, axes.barHeight]))

test.each<[string, string, unknown, string, RegExp]>([
  [
    'two marks of one label',
    `${T}/axes/seatHeight/scale/marks/3/label`,
    '1',
    `${T}/axes/seatHeight/scale/marks/3/label`,
    /twice/,
  ],
  [
    'positions not in order',
    `${T}/axes/seatSlide/scale/marks/2/mm`,
    500,
    `${T}/axes/seatSlide/scale/marks/3/mm`,
    /order/,
  ],
  ['a bar below the axle', `${T}/gripOrigin/yMm`, -40, `${T}/gripOrigin/yMm`, /bars below the crank axle/],
  ['a saddle below the axle', `${T}/seatOrigin/yMm`, -400, `${T}/seatOrigin/yMm`, /saddle below the crank axle/],
  ['a hundred axes', `${T}/axes`, { ...axes, ...hundredAxes }, `${T}/axes/axis99`, /not a field/],
  ['a number that is none', `${T}/crankMm`, null, `${T}/crankMm`, /must be a number/],
  ['another format', '/format', 'something', '/format', /must be/],
  ['a crank of 17 mm', `${T}/crankMm`, 17, `${T}/crankMm`, /at least 50/],
  ['no types', '/types', [], '/types', /must not be empty/],
  [
    'one name twice',
    '/types/1',
    { bikeType: HOLES_BIKE, sheet: DEFAULT_EQUIPMENT },
    '/types/1/bikeType/name',
    /twice in this file/,
  ],
])('%s is refused with its place and reason', (_, at, value, pointer, reason) => {
  expect(issuesOf(changed(at, value))).toContainEqual({ pointer, reason: expect.stringMatching(reason) })
})

test('text that is not JSON is reported; NaN cannot be written and so cannot be read', () => {
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
