import { TYPES } from '@/scripts/netloftHall'
import { axisPositions, contactPoints } from '../bike/contactPoints'
import type { BikeReading } from './bikeReading'
import { calibrateMachine } from './machineCalibration'

const bikeType = TYPES.sorrel
const marks = { seatHeight: '7', seatSlide: 'C', barHeight: '5', barSlide: '2' }
/** What a tape reads, or riders say, with the seat post off by so much. */
const lengthsAt = (seatHeight: number) =>
  contactPoints(bikeType, { offsetsMm: { seatHeight } }, axisPositions(bikeType, marks)).lengths
const tape = (mm: number, resetsBaseline = false): BikeReading => ({
  kind: 'tape',
  marks,
  lengths: lengthsAt(mm),
  ...(resetsBaseline && { resetsBaseline }),
})
const riders = (mm: number): BikeReading => ({
  kind: 'riders',
  marks,
  saddleHeightMm: lengthsAt(mm).saddleHeightMm,
  sdMm: 1.5,
  riders: 12,
})
const heightOf = (rows: readonly BikeReading[], of = bikeType) => calibrateMachine(of, rows).bike.offsetsMm?.seatHeight

test('what riders report applies in the place of tapes before it, until a tape is laid after it', () => {
  expect(heightOf([])).toBeUndefined()
  expect(heightOf([riders(-9)])).toBeCloseTo(-9, 1)
  expect(heightOf([tape(2), riders(-9)])).toBeCloseTo(-9, 1)
  // The tape’s other lengths stay.
  const both = calibrateMachine(bikeType, [tape(2), riders(-9)])
  expect(both.bike.offsetsMm).toHaveProperty('barHeight')
  expect(both.from).toEqual([0, 1])
  expect(both.bike.sdMm?.seatHeight).toBeCloseTo(1.5, 6)
  expect(heightOf([riders(-9), tape(-3, true)])).toBeGreaterThan(-3.5)
  expect(calibrateMachine(bikeType, [riders(-9), tape(-3)]).from).toEqual([1])
})

test('a type measured again keeps what riders stated of the machine as a length, not as an offset', () => {
  const { xMm, yMm } = bikeType.seatOrigin
  const higher = { ...bikeType, seatOrigin: { xMm, yMm: yMm + 6 } }
  expect(heightOf([riders(-9)], higher)).toBeCloseTo(-9 - 6 * Math.cos((17 * Math.PI) / 180), 0)
  // At marks that the new version does not have they say nothing.
  const axes = { ...bikeType.axes, seatHeight: { ...bikeType.axes.seatHeight, scale: bikeType.axes.seatSlide.scale } }
  expect(heightOf([riders(-9)], { ...bikeType, axes })).toBeUndefined()
})
