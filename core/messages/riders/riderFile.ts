import type { ToldReason } from '../../riders/riderFile/riderFile'

/** What a file is worth, as a heading. */
export const STANDING_TITLE = Object.freeze({ measured: 'Measured, and unchanged', told: 'Told numbers only' })

/** Why a file is taken only as told, to follow the heading. */
export const TOLD_TEXT: Readonly<Record<ToldReason, string>> = Object.freeze({
  changed: 'It was changed after it was signed, or was never signed by the studio it names.',
  unknownStudio: 'It is whole, but this studio does not know the one that signed it.',
  old: 'It is older than two years: bodies, habits and shoes change.',
  future: 'It is dated ahead of today: one of the two clocks is wrong.',
  newer: 'It is of a later version than this one reads: only its numbers are taken.',
})

/** What follows for the rider. */
export const TOLD_FOLLOWS = 'Its numbers can be taken as if the rider had told them; body and health stay out.'

/** Why nothing of a file can be read. */
export const FILE_REFUSAL_TEXT = Object.freeze({
  tooLarge: 'This is larger than any rider’s file. Look whether it is the right one.',
  otherFormat: 'This is no rider’s own file: it comes from the rider’s own page, under “Take your set-up along”.',
  refused: 'This file was cut short or does not follow the form of a rider’s file:',
})
