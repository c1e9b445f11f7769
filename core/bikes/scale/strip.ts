import type { Label } from '../../base/conventions'
import { positionsOf, type Scale } from './scale'

/** A scale as a strip from 0 to 1: where its marks lie, which are written out, and which is set. */
export type Strip = Readonly<{
  ticks: readonly Readonly<{ at: number; label: Label; written: boolean; half: boolean }>[]
  /** Where the set mark lies; null where none is. */
  setAt: number | null
}>

/** So many labels can be read beside each other on a card. */
const MAX_WRITTEN = 11

/**
 * The marks of a scale in their printed order along a strip. Half marks are ticks without a label; of many labels every
 * so many are written, and always the ends and the one that is set with none beside it.
 */
export function stripOf(scale: Scale, set: Label | undefined): Strip {
  const positions = positionsOf(scale)
  const [first, last] = [positions[0].mm, positions[positions.length - 1].mm]
  const span = last - first || 1
  const isHalf = ({ label }: (typeof positions)[number]) =>
    'ruler' in scale ? !Number.isInteger(Number(label)) : /\.5$|\//.test(label)
  const whole = positions.filter((position) => !isHalf(position))
  const every = Math.max(1, Math.ceil(whole.length / MAX_WRITTEN))
  const setIndex = positions.findIndex(({ label }) => label === set)
  const near = (i: number) => setIndex >= 0 && i !== setIndex && Math.abs(at(i) - at(setIndex)) < NEAR
  const at = (i: number) => (positions[i].mm - first) / span
  return {
    ticks: positions.map((position, i) => {
      const inTurn = whole.indexOf(position) >= 0 && whole.indexOf(position) % every === 0
      return {
        at: at(i),
        label: position.label,
        half: isHalf(position),
        written: i === setIndex || (inTurn && !near(i)),
      }
    }),
    setAt: setIndex < 0 ? null : at(setIndex),
  }
}
/** Labels nearer than this to the set one are left out. */
const NEAR = 0.08
