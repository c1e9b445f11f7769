import fc from 'fast-check'
import { USUAL_SHEET } from '../bike/sheet'
import { randomFrom } from '../belief/random'
import { trueTypeFor } from '../simulated/simulatedTape'
import { HOLES_BIKE } from '../testing/meanRider'
import { readTypeFile, typeFaults, typeFileOf, wholeTypeFaults, type WholeType } from './typeFile'

const whole: WholeType = { bikeType: HOLES_BIKE, sheet: USUAL_SHEET }
const faultsOf = (text: string) => {
  const read = readTypeFile(text)
  return read.outcome === 'refused' ? read.faults : []
}
const changed = (
  change: (file: { types: { bikeType: Record<string, never>; sheet: Record<string, never> }[] }) => void,
): string => {
  const file = JSON.parse(typeFileOf([whole]))
  change(file)
  return JSON.stringify(file)
}

test('export ∘ import is the identity, to the last digit', () => {
  fc.assert(
    fc.property(fc.integer(), (seed) => {
      const bikeType = trueTypeFor(
        HOLES_BIKE,
        { originMm: 15.123, directionDeg: 2.7, pitchShare: 0.041 },
        randomFrom(seed),
      )
      const text = typeFileOf([{ ...whole, bikeType }])
      const read = readTypeFile(text)
      expect(read).toEqual({ outcome: 'read', types: [{ ...whole, bikeType }] })
      expect(read.outcome === 'read' && typeFileOf(read.types)).toBe(text)
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
    expect(faultsOf(changed(change))).toContainEqual({ pointer, reason: expect.stringMatching(reason) })
  },
)

test('what is no JSON says so; NaN cannot be written and so cannot be read', () => {
  expect(faultsOf('{"format": NaN}')[0].reason).toMatch(/not JSON/)
  expect(faultsOf('')[0].reason).toMatch(/not JSON/)
})

test('one type alone, for the editor: the same faults with their own places', () => {
  expect(wholeTypeFaults(whole)).toEqual([])
  expect(wholeTypeFaults({ ...whole, bikeType: { ...HOLES_BIKE, name: '' } })).toContainEqual({
    pointer: '/bikeType/name',
    reason: 'must not be empty',
  })
  expect(wholeTypeFaults({ ...whole, bikeType: { ...HOLES_BIKE, crankMm: Number.NaN } })).toContainEqual({
    pointer: '/bikeType/crankMm',
    reason: 'must be a number',
  })
  expect(typeFaults(HOLES_BIKE, '')).toEqual([])
})
