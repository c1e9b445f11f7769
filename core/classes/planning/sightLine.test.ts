import { nearestPlace, turnDeg } from './sightLine'

const bike = { xM: 0, yM: 4, headingDeg: 0 }

test('turns: to the right is plus, straight ahead none, behind half way round', () => {
  expect(turnDeg(bike, { xM: 0, yM: 0 })).toBe(0)
  expect(turnDeg(bike, { xM: 4, yM: 0 })).toBeCloseTo(45, 9)
  expect(turnDeg(bike, { xM: -4, yM: 0 })).toBeCloseTo(-45, 9)
  expect(turnDeg(bike, { xM: 0, yM: 9 })).toBe(180)
  expect(turnDeg({ ...bike, headingDeg: 45 }, { xM: 4, yM: 0 })).toBeCloseTo(0, 9)
  expect(turnDeg({ ...bike, headingDeg: 350 }, { xM: 0, yM: 0 })).toBeCloseTo(10, 9)
  expect(turnDeg(bike, bike)).toBe(0)
})

test('the nearest of several places, and of none none', () => {
  expect(
    nearestPlace(bike, [
      { xM: 9, yM: 4 },
      { xM: 1, yM: 4 },
    ]),
  ).toEqual({ xM: 1, yM: 4 })
  expect(nearestPlace(bike, [])).toBeNull()
})
