import type { Rng } from '../base/rng'
import { axesOf, axisOf, type BikeType } from '../bikes/bike/bike'
import { axisPositions, contactPoints, type Lengths } from '../bikes/bike/contactPoints'
import type { LengthName, TapeReading } from '../bikes/calibration/readings'
import { LENGTH_OF_AXIS, LENGTHS } from '../bikes/calibration/readings'
import type { Marks } from '../base/conventions'
import { scaledBy } from '../bikes/scale/scale'

/** How far a guess strays from the bike that is measured. */
export type GuessError = Readonly<{ originMm: number; directionDeg: number; spacingShare: number }>

/** The bike as it truly is, when the guess is wrong by just this much, every part either way. */
export function trueTypeFor(guess: BikeType, error: GuessError, random: Rng): BikeType {
  const either = (size: number) => (random.uniform() < 0.5 ? -size : size)
  const origin = ({ xMm, yMm }: BikeType['seatOrigin']) => ({
    xMm: xMm + either(error.originMm),
    yMm: yMm + either(error.originMm),
  })
  const axes = Object.fromEntries(
    axesOf(guess).map((name) => {
      const axis = axisOf(guess, name)!
      if (LENGTH_OF_AXIS[name] === null) return [name, axis]
      return [
        name,
        {
          directionDeg: axis.directionDeg + either(error.directionDeg),
          scale: scaledBy(axis.scale, 1 + either(error.spacingShare)),
        },
      ]
    }),
  ) as BikeType['axes']
  return { ...guess, seatOrigin: origin(guess.seatOrigin), gripOrigin: origin(guess.gripOrigin), axes }
}

/** All four lengths at these marks, each with the error of a careful hand, mm. */
export function tapeAt(type: BikeType, marks: Marks, random: Rng, sdMm: number): TapeReading {
  const { lengths } = contactPoints(type, undefined, axisPositions(type, marks))
  const read = (length: LengthName) => lengths[length] + sdMm * random.normal()
  return { marks, lengths: Object.fromEntries(LENGTHS.map((length) => [length, read(length)])) as Lengths }
}
