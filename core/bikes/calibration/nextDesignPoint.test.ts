import { axesOf } from '../bike/bike'
import { axisPositions, contactPoints } from '../bike/contactPoints'
import { HOLES_BIKE } from '../../testing/meanRider'
import { calibrate } from './calibrate'
import { nextDesignPoint } from './nextDesignPoint'
import type { TapeReading } from './readings'

/** The settings proposed one after the other, each read as the guess predicts it. */
function proposed(count: number) {
  const readings: TapeReading[] = []
  const leaves: number[] = []
  for (let k = 0; k < count; k++) {
    const next = nextDesignPoint(HOLES_BIKE, readings)
    leaves.push(next.leavesMm)
    readings.push({
      marks: next.marks,
      lengths: contactPoints(HOLES_BIKE, undefined, axisPositions(HOLES_BIKE, next.marks)).lengths,
    })
  }
  return { readings, leaves }
}
const { readings, leaves } = proposed(7)

test('every reading proposed leaves less to doubt than the one before; seven leave under 3 mm on every length', () => {
  leaves.slice(1).forEach((mm, i) => expect(mm).toBeLessThan(leaves[i]))
  expect(leaves[6]).toBeLessThan(3)
})

test('no setting is proposed twice, and no two axes are always changed alike', () => {
  expect(new Set(readings.map((r) => JSON.stringify(r.marks))).size).toBe(readings.length)
  const axes = axesOf(HOLES_BIKE)
  for (const a of axes)
    for (const b of axes.filter((name) => name > a)) {
      const pairs = new Set(readings.map(({ marks }) => `${marks[a]} with ${marks[b]}`))
      const ofA = new Set(readings.map(({ marks }) => marks[a]))
      expect(pairs.size).toBeGreaterThan(ofA.size)
    }
})

test('both ends of every axis are visited', () => {
  for (const axis of axesOf(HOLES_BIKE))
    expect(new Set(readings.map((r) => r.marks[axis])).size).toBeGreaterThanOrEqual(2)
})

test('the second or third setting proposed moves every axis: own guidance never ends at "too few marks"', () => {
  for (const axis of axesOf(HOLES_BIKE))
    expect(new Set(readings.slice(0, 3).map((r) => r.marks[axis])).size).toBeGreaterThanOrEqual(2)
  expect(calibrate(HOLES_BIKE, readings.slice(0, 3)).outcome).toBe('fitted')
  expect(calibrate(HOLES_BIKE, readings.slice(0, 5)).outcome).toBe('fitted')
})
