import { inWindow } from '../../base/school/school'
import type { ChangedAxis } from '../model/causeTable'
import type { Finding } from '../model/request'
import { barsWindowMm, offWindow, plumbWindowMm, tiltAssessment, type WindowContext as Context } from '../model/windows'

/** Elbows, feeling and gauge within these are as they should be, mm of forearm gap. */
const FOREARM_WINDOW_MM = [-20, 20] as const

type Of<K extends Finding['kind']> = Extract<Finding, { kind: K }>

/** The youngest finding of a kind that was made on a bike of this type. */
export function freshest<K extends Finding['kind']>(findings: readonly Finding[], kind: K): Of<K> | undefined {
  return findings
    .filter((one): one is Of<K> => one.kind === kind && !('otherType' in one && one.otherType))
    .toSorted((a, b) => (a.daysAgo ?? 0) - (b.daysAgo ?? 0))
    .at(0)
}

/** The window of a check that a change may disturb, in its own unit. */
export function windowOf(
  check: 'kneeFlexion' | 'plumb' | 'barAgainstSaddle' | 'tilt',
  findings: readonly Finding[],
  context: Context,
): readonly [number, number] {
  switch (check) {
    case 'kneeFlexion':
      return context.school.kneeWindowDeg
    case 'plumb':
      return plumbWindowMm(context.school)
    case 'barAgainstSaddle':
      return barsWindowMm(context)
    case 'tilt': {
      const reading = freshest(findings, 'tilt')
      return reading ? tiltAssessment(reading, context.school).windowDeg : [-Infinity, Infinity]
    }
  }
}

/**
 * Whether the checks of an axis that were read are all as they should be; null where none was read. An instrument has
 * precedence where it was used; the bars' slide goes by elbows, feeling and gauge.
 */
export function isAxisInside(axis: ChangedAxis, findings: readonly Finding[], context: Context): boolean | null {
  switch (axis) {
    case 'seatHeight':
      return insideOf(freshest(findings, 'kneeAngle')?.deg, context.school.kneeWindowDeg)
    case 'seatSlide':
      return insideOf(freshest(findings, 'plumb')?.mm, plumbWindowMm(context.school))
    case 'barHeight':
      return insideOf(freshest(findings, 'barsAgainstSaddle')?.mm, barsWindowMm(context))
    case 'tilt': {
      const reading = freshest(findings, 'tilt')
      return reading ? tiltAssessment(reading, context.school).outcome === 'good' : null
    }
    case 'crankLength':
      return null
    case 'barSlide': {
      const seen = [freshest(findings, 'elbows')?.seen, freshest(findings, 'reachFeel')?.seen].filter(Boolean)
      if (seen.length > 0) return seen.some((one) => one === 'soft' || one === 'right')
      return insideOf(freshest(findings, 'forearmGauge')?.mm, FOREARM_WINDOW_MM)
    }
  }
}

const insideOf = (value: number | undefined, window: readonly [number, number]): boolean | null =>
  value === undefined ? null : inWindow(value, window)

/** Whether a finding is inside its window; null for findings without one, such as changes. */
export function isGood(finding: Finding, context: Context): boolean | null {
  const { school } = context
  switch (finding.kind) {
    case 'kneeAngle':
      return inWindow(finding.deg, school.kneeWindowDeg)
    case 'plumb':
      return inWindow(finding.mm, plumbWindowMm(school))
    case 'tilt':
      return tiltAssessment(finding, school).outcome === 'good'
    case 'barsAgainstSaddle':
      return offWindow(finding.mm, barsWindowMm(context)) === 0
    case 'elbows':
      return finding.seen === 'soft'
    case 'reachFeel':
      return finding.seen === 'right'
    case 'clearance':
      return finding.seen === 'clear'
    case 'forearmGauge':
      return inWindow(finding.mm, FOREARM_WINDOW_MM)
    case 'rocking':
      return finding.seen === 'level'
    case 'kneeByEye':
      return true
    case 'saddleLine':
      return Math.abs(finding.mm) <= 2
    case 'seen':
      return finding.held === true ? null : false
    case 'cadence':
      return finding.load === 'light'
    case 'viewAngle':
      return Math.abs(finding.deg) <= 30
    default:
      return null
  }
}

/** Something was read, and all of it is as it should be: the reason is not the bike's measures. */
export function areAllGood(findings: readonly Finding[], context: Context): boolean {
  const verdicts = findings.filter(({ kind }) => kind !== 'viewAngle').map((one) => isGood(one, context))
  return verdicts.includes(true) && !verdicts.includes(false) && !findings.some(({ kind }) => kind === 'changed')
}
