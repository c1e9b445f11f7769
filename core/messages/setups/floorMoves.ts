import { ADJUSTMENTS, type AxisName, type DisturbedCheck } from '../../base/adjustments'
import type { Label } from '../../base/conventions'
import type { UnitSystem } from '../../base/length'
import type { AgainReason, FloorScales, MarkMove, MoveReason } from '../../setups/moves/move'
import { labelText } from '../../setups/moves/move'
import { ADJUSTMENT_WORDS } from '../words/adjustments'
import { AXIS_NAME, capitalized, formatDegrees, formatLength, formatList, formatPlumb } from '../words/phrases'

/** Why a mark is moved, as on its button. */
export const MOVE_REASON_NAME: Readonly<Record<MoveReason, string>> = Object.freeze({
  comfort: 'Comfort',
  sign: 'Sign seen',
  felt: 'Felt',
  checked: 'Checked',
  planned: 'As planned',
})

/** Why a second change does not wait, as on its button. */
export const AGAIN_REASON_NAME: Readonly<Record<AgainReason, string>> = Object.freeze({
  tooFar: 'Went too far',
  noHelp: 'Did not help',
  worse: 'Got worse',
  otherThing: 'Another thing',
  wish: 'Rider’s wish',
})

const WHY: Readonly<Record<MoveReason, string>> = {
  comfort: 'moved for comfort',
  sign: 'moved for a sign seen',
  felt: 'moved for something felt',
  checked: 'moved after a check',
  planned: 'moved as planned',
}

/** Why a mark was moved, on the time line: "moved for comfort; a second change: went too far". */
export function formatWhyMoved({ why, again }: Pick<MarkMove, 'why' | 'again'>): string {
  // An archive may bring a reason that this version does not know.
  const moved = WHY[why] ?? 'moved'
  const second = again && AGAIN_REASON_NAME[again]
  return second ? `${moved}; a second change: ${second.toLowerCase()}` : moved
}

/** What the arrows beside an axis do, by the sign of the move: "Seat height up", "Seat slide forward". */
export function formatMoveButton(axis: AxisName, sign: 1 | -1): string {
  const [plus, minus] = ADJUSTMENT_WORDS[axis].ways
  return `${capitalized(AXIS_NAME[axis])} ${sign > 0 ? plus : minus}`
}
/** "12 mm up" */
export const formatMoveWay = (axis: AxisName, mm: number, shown: UnitSystem): string =>
  `${formatLength(mm, shown)} ${ADJUSTMENT_WORDS[axis].ways[mm >= 0 ? 0 : 1]}`

/** A move in a few words, as on a tile: "seat height 7 → 8". */
export const formatMoveOnTile = (scales: FloorScales, { axis, from, to }: Pick<MarkMove, 'axis' | 'from' | 'to'>) =>
  `${AXIS_NAME[axis]} ${labelText(scales, axis, from)} → ${labelText(scales, axis, to)}`

const CHECK: Readonly<Record<DisturbedCheck, string>> = {
  knee: 'knee',
  plumb: 'plumb line',
  reach: 'reach',
  elbows: 'elbows',
  back: 'back',
  clearance: 'knees against the bars when standing',
}

/** "Knee and reach should be looked at again." */
export const formatDisturbed = (axis: AxisName): string =>
  `${capitalized(formatList(ADJUSTMENTS[axis].disturbs.map((check) => CHECK[check])))} should be looked at again.`

/** What slides on a post that ends: its insertion mark. */
const HAS_POST: readonly AxisName[] = ['seatHeight', 'barHeight', 'frameHeight']

/** The caution before anything is moved. */
export const formatMoveCaution = (axis: AxisName): string =>
  'Wheel stopped, rider off the bike; close the pin and shake it' +
  (HAS_POST.includes(axis) ? '; never past the insertion mark.' : '.')

/** Posterior means of the checks at the present mark (`from`) and at the target (`to`). */
export type MoveExpectation = Readonly<{
  kneeDeg: Readonly<{ from: number; to: number }>
  plumbMm: Readonly<{ from: number; to: number }>
}>

/** "Knee from 36° to about 31°." of a saddle moved; null for bars, which leave both as they are. */
export function formatMoveExpectation(
  axis: AxisName,
  { kneeDeg, plumbMm }: MoveExpectation,
  shown: UnitSystem,
): string | null {
  const knee = `knee from ${formatDegrees(kneeDeg.from)} to about ${formatDegrees(kneeDeg.to)}`
  if (axis === 'seatHeight') return `${capitalized(knee)}.`
  if (axis !== 'seatSlide') return null
  const plumb = `plumb line from ${formatPlumb(plumbMm.from, shown)} to about ${formatPlumb(plumbMm.to, shown)}`
  return `${capitalized(plumb)}; ${knee}.`
}

/** The question before a move to a mark that is not one for self-adjustment. */
export const formatBeyond = (scales: FloorScales, axis: AxisName, alone: readonly Label[] | undefined): string => {
  if (!alone) return 'That is a long step for the floor. Move it all the same?'
  if (alone.length === 0) return `No other ${AXIS_NAME[axis]} is expected to pass its check. Move it all the same?`
  const labels = alone.map((label) => labelText(scales, axis, label))
  const are = labels.length === 1 ? 'is' : 'are'
  return `Only ${formatList(labels)} ${are} expected to pass the check. Move it all the same?`
}

/** Why a second change should wait. */
export const AGAIN_TODAY = 'A mark was moved today already: one change at a time. Why a second one?'
export const AGAIN_ON_TRIAL = 'A change is on trial: a second one hides what the first does. Why not wait?'
