import type { When } from '../model/causeTable'
import type { Drift, FindingOrDrift } from '../findings/findingIndex'
import type { Complaint, Finding } from '../model/request'
import { barsWindowMm, offWindow, plumbWindowMm, tiltOutcome, type WindowContext } from '../model/windows'

export const areOppositeSides = (a: string | undefined, b: string | undefined): boolean =>
  (a === 'left' && b === 'right') || (a === 'right' && b === 'left')

/** Whether a finding of the rule's kind, and of its sign, is what the rule is about. */
export function matches(when: When, found: FindingOrDrift, complaint: Complaint, context: WindowContext): boolean {
  if (when.kind !== found.kind) return false
  const { school } = context
  const finding = found as Finding
  switch (when.kind) {
    case 'kneeAngle': {
      const { deg } = finding as Extract<Finding, { kind: 'kneeAngle' }>
      const [low, high] = school.kneeWindowDeg
      if (when.side === 'within') return deg >= low && deg <= high
      return when.side === 'above' ? deg > high + when.by : deg < low - when.by
    }
    case 'plumb': {
      const off = offWindow((finding as Extract<Finding, { kind: 'plumb' }>).mm, plumbWindowMm(school))
      // Under schools that only guard against gross errors a reading inside is no evidence.
      if (when.side === 'within') return off === 0 && (school.foreAft === 'plumb' || school.foreAft === 'midFoot')
      return when.side === 'ahead' ? off > when.by : -off > when.by
    }
    case 'barsAgainstSaddle': {
      const off = offWindow((finding as Extract<Finding, { kind: 'barsAgainstSaddle' }>).mm, barsWindowMm(context))
      return when.side === 'below' ? -off > when.by : off >= 0
    }
    case 'viewAngle':
      return within(when, Math.abs((finding as Extract<Finding, { kind: 'viewAngle' }>).deg))
    case 'saddleLine':
      return within(when, Math.abs((finding as Extract<Finding, { kind: 'saddleLine' }>).mm))
    case 'forearmGauge':
      return within(when, (finding as Extract<Finding, { kind: 'forearmGauge' }>).mm)
    case 'footPitch':
    case 'trunkAngle':
      return within(when, (finding as Extract<Finding, { kind: 'trunkAngle' }>).deg)
    case 'tilt':
      return tiltOutcome(finding as Extract<Finding, { kind: 'tilt' }>, school) === when.outcome
    case 'heelCheck': {
      const { seen } = finding as Extract<Finding, { kind: 'heelCheck' }>
      // A natural foot fails the heel check at a height that is right: only schools that go by it hear it.
      const counts = school.heelCheck === 'target' || (school.heelCheck === 'ceiling' && seen === 'cannotReach')
      return counts && seen === when.seen
    }
    case 'elbows':
    case 'reachFeel':
    case 'clearance':
    case 'kneeByEye':
      return (finding as Extract<Finding, { kind: 'elbows' }>).seen === when.seen
    case 'build': {
      const { torso, heavyUpperBody, tightHips } = finding as Extract<Finding, { kind: 'build' }>
      return {
        longTorso: torso === 'long',
        shortTorso: torso === 'short',
        heavyUpperBody: heavyUpperBody === true,
        tightHips: tightHips === true,
      }[when.of]
    }
    case 'drift': {
      const { of, by } = found as Drift
      return of === when.of && (when.way === 'either' || (when.way === 'up') === by > 0)
    }
    case 'rocking': {
      const { seen } = finding as Extract<Finding, { kind: 'rocking' }>
      return (seen === 'left' || seen === 'right' ? 'oneSide' : seen) === when.seen
    }
    case 'cadence': {
      const { load, rpm } = finding as Extract<Finding, { kind: 'cadence' }>
      return load === when.load && within(when, rpm)
    }
    case 'changed': {
      const { what, daysAgo } = finding as Extract<Finding, { kind: 'changed' }>
      return what === when.what && daysAgo <= when.below
    }
    case 'seen': {
      const { side } = finding as Extract<Finding, { kind: 'seen' }>
      return when.side === undefined || areOppositeSides(side, complaint.side)
    }
    default:
      return false
  }
}

function within(when: When, value: number): boolean {
  const {
    above = -Infinity,
    below = Infinity,
    from = -Infinity,
    to = Infinity,
  } = when as {
    above?: number
    below?: number
    from?: number
    to?: number
  }
  return value > above && value < below && value >= from && value <= to
}
