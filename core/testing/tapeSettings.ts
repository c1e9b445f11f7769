import type { Marks } from '../base/conventions'

/** How far a guess of a type may be off in tests of the tape; every part either way. */
export const GUESS = { originMm: 15, directionDeg: 2, spacingShare: 0.04 }

/** Nine settings of `HOLES_BIKE` that move every axis, its ends and its middle; for tests. */
export const SETTINGS: Marks[] = [
  ['1', 'A', '1', '-4'],
  ['15', 'G', '12', '4'],
  ['1', 'G', '12', '-4'],
  ['15', 'A', '1', '4'],
  ['8', 'D', '6', '0'],
  ['1', 'G', '1', '4'],
  ['15', 'A', '12', '-4'],
  ['8', 'A', '12', '4'],
  ['8', 'G', '1', '-4'],
].map(([seatHeight, seatSlide, barHeight, barSlide]) => ({ seatHeight, seatSlide, barHeight, barSlide }))
