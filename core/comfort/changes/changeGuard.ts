import { reachVerdict } from '../../setups/recommend/bars/barLooks'
import type { Cause, ChangedAxis } from '../model/causeTable'
import type { Change, ChangeInputs, Expected, NoChange } from './changeTypes'
import { freshest, windowOf } from '../findings/checksRead'
import type { Finding } from '../model/request'
import { seenSign } from '../findings/seenSign'
import { offWindow } from '../model/windows'

/** No change may straighten a knee below this, degrees: the lower end of what the strictest schools let pass. */
const MIN_KNEE_DEG = 20

/** What has to be read before an axis is moved, or null where it was. Nothing is moved for what was not measured. */
export function unmeasured(
  axis: ChangedAxis,
  cause: Cause,
  { findings, school }: Pick<ChangeInputs, 'findings' | 'school'>,
): Finding['kind'] | null {
  const has = (...kinds: Finding['kind'][]) => kinds.some((kind) => freshest(findings, kind) !== undefined)
  switch (axis) {
    case 'seatHeight':
      return has('kneeAngle') ? null : 'kneeAngle'
    case 'seatSlide':
      if (has('plumb')) return null
      // Without a plumb line the slide goes by how the rider sits and feels.
      return school.foreAft === 'plumb' || school.foreAft === 'midFoot' || !has('seen', 'reachFeel', 'elbows', 'build')
        ? 'plumb'
        : null
    case 'crankLength':
      return has('kneeAngle') ? null : 'kneeAngle'
    case 'tilt':
      return has('tilt') ? null : 'tilt'
    case 'barHeight':
      return has('barsAgainstSaddle', 'clearance', 'trunkAngle') ? null : 'barsAgainstSaddle'
    case 'barSlide':
      return has('elbows', 'reachFeel', 'forearmGauge', 'clearance', 'trunkAngle') ||
        findings.some((one) => one.kind === 'seen' && supports(one, cause))
        ? null
        : 'elbows'
  }
}

/** Whether a note of the class speaks for bars that are too far: it was seen, as an instructor's look is. */
const supports = ({ region, what }: Extract<Finding, { kind: 'seen' }>, cause: Cause): boolean =>
  cause === 'barsTooFar' && FAR_SIGNS.includes(seenSign(region, what)?.sign ?? '')
const FAR_SIGNS: readonly string[] = ['elbowsLocked', 'pullingAway']

/**
 * The check that a change would take further outside its window than it was read, or turn against what was seen of the
 * reach or the knees; null where none.
 */
export function worsened(
  { axis, direction, mm = 0 }: Change,
  expect: readonly Expected[],
  inputs: ChangeInputs,
): Extract<NoChange, { code: 'wouldWorsen' }>['check'] | null {
  const { findings, health = [] } = inputs
  for (const { check, from, to, by } of expect) {
    // In pregnancy nothing lowers the bars against the saddle.
    if (check === 'barAgainstSaddle' && by < -1 && health.includes('pregnant')) return check
    if (from === undefined || to === undefined) continue
    const window = windowOf(check, findings, inputs)
    const [before, after] = [from, to].map((value) => Math.abs(offWindow(value, window)))
    if (after > before + 1e-6) return check
    if (check === 'kneeFlexion' && by < 0 && to < MIN_KNEE_DEG) return check
  }
  if (
    health.includes('pregnant') &&
    ((axis === 'barHeight' && direction === 'down') || (axis === 'tilt' && direction === 'up'))
  )
    return axis === 'tilt' ? 'tilt' : 'barAgainstSaddle'
  const reach = reachVerdict(freshest(findings, 'elbows')?.seen, freshest(findings, 'reachFeel')?.seen)
  const longer = (axis === 'barSlide' && direction === 'forward') || (axis === 'seatSlide' && direction === 'back')
  const shorter = (axis === 'barSlide' && direction === 'back') || (axis === 'seatSlide' && direction === 'forward')
  const lower = axis === 'barHeight' && direction === 'down'
  if (reach === 'far' && (longer || lower)) return 'reach'
  if (reach === 'near' && (shorter || (axis === 'barHeight' && direction === 'up'))) return 'reach'
  const touches = freshest(findings, 'clearance')?.seen === 'touches'
  if (touches && ((axis === 'barSlide' && direction === 'back') || lower)) return 'clearance'
  return mm === 0 && axis !== 'tilt' ? 'reach' : null
}
