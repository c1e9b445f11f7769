import type { Finding } from '../model/request'
import { seenSign } from './seenSign'

/**
 * Readings of one kind that differ by more than this without a recorded change speak for a slip: some three standard
 * deviations of a difference (2° a knee angle, 6 mm a plumb line; `measurementNoise`).
 */
const DRIFT_FROM = { kneeAngle: 8, plumb: 25 } as const

const BARS_SEEN = ['elbows', 'reachFeel', 'clearance', 'trunkAngle', 'forearmGauge'] as const
const HEIGHT_SEEN = ['rocking', 'heelCheck', 'footPitch', 'kneeByEye'] as const
/** Which findings a change makes old. */
export const INVALIDATED_BY_CHANGE: Readonly<
  Record<Extract<Finding, { kind: 'changed' }>['what'], readonly Finding['kind'][]>
> = {
  numbers: ['kneeAngle', 'plumb', 'barsAgainstSaddle', ...BARS_SEEN, ...HEIGHT_SEEN],
  bike: ['kneeAngle', 'plumb', 'tilt', 'saddleLine', 'barsAgainstSaddle', ...BARS_SEEN, ...HEIGHT_SEEN],
  saddle: ['kneeAngle', 'plumb', 'tilt', 'saddleLine', ...HEIGHT_SEEN],
  shoes: ['kneeAngle', 'plumb', ...HEIGHT_SEEN],
  cleats: ['kneeAngle', 'plumb', ...HEIGHT_SEEN],
}

/**
 * A reading that differs from an older one of its kind although nothing was changed between them: newest less older.
 */
export type Drift = Readonly<{ kind: 'drift'; of: 'kneeAngle' | 'plumb'; by: number; daysAgo?: number }>
export type FindingOrDrift = Finding | Drift

/** Findings as they are looked up: by kind, notes by their sign; whether what they were found on was changed since. */
export type Prepared = Readonly<{
  finding: FindingOrDrift
  isOld: boolean
  /** A valid instrument reading of the same quantity, and the note's direction. */
  measured?: Readonly<{ reading: FindingOrDrift; way: 1 | -1 }>
}>
export type FindingIndex = ReadonlyMap<string, readonly Prepared[]>

const keyOf = (finding: FindingOrDrift): string =>
  finding.kind === 'seen' ? `seen ${seenSign(finding.region, finding.what)?.sign}` : finding.kind

const daysOf = ({ daysAgo = 0 }: FindingOrDrift): number => daysAgo
export const isOfOtherType = (finding: FindingOrDrift): boolean => 'otherType' in finding && finding.otherType === true

/**
 * The findings that speak: of readings and looks of one kind only the newest, those of this type of bike before others;
 * notes and changes all. An older reading that differs, with nothing changed in between, speaks for a slip instead.
 */
export function prepareFindings(findings: readonly Finding[]): FindingIndex {
  const changes = findings.filter((one) => one.kind === 'changed')
  const changedAfter = (finding: FindingOrDrift): boolean =>
    changes.some(
      ({ what, daysAgo }) =>
        (INVALIDATED_BY_CHANGE[what] as string[]).includes(finding.kind) && daysOf(finding) > daysAgo,
    )
  const byKind = new Map<string, Finding[]>()
  for (const finding of findings) byKind.set(keyOf(finding), [...(byKind.get(keyOf(finding)) ?? []), finding])
  const index = new Map<string, Prepared[]>()
  for (const [key, all] of byKind) {
    const speaking = all[0].kind === 'seen' || all[0].kind === 'changed' ? all : newestOf(all)
    index.set(
      key,
      speaking.map((finding) => ({ finding, isOld: finding.kind !== 'changed' && changedAfter(finding) })),
    )
  }
  const drifts = (['kneeAngle', 'plumb'] as const).flatMap((kind) => driftOf(byKind.get(kind) ?? [], kind, changes))
  if (drifts.length > 0)
    index.set(
      'drift',
      drifts.map((finding) => ({ finding, isOld: false })),
    )
  return withInstruments(index)
}

/** The newest of a kind on this type of bike; of another type only where there is none. Of one age all. */
function newestOf(all: readonly Finding[]): Finding[] {
  const own = all.filter((one) => !isOfOtherType(one))
  const from = own.length > 0 ? own : all
  const newest = Math.min(...from.map(daysOf))
  return from.filter((one) => daysOf(one) === newest)
}

function driftOf(
  all: readonly Finding[],
  of: Drift['of'],
  changes: readonly Extract<Finding, { kind: 'changed' }>[],
): Drift[] {
  const own = all.filter((one) => !isOfOtherType(one)).toSorted((a, b) => daysOf(a) - daysOf(b))
  const newest = own.at(0)
  if (!newest) return []
  const valueOf = (one: Finding) => (one.kind === 'kneeAngle' ? one.deg : one.kind === 'plumb' ? one.mm : 0)
  const between = (older: Finding) =>
    changes.some(({ daysAgo }) => daysAgo >= daysOf(newest) && daysAgo <= daysOf(older))
  const older = own.find((one) => daysOf(one) > daysOf(newest))
  if (!older || between(older)) return []
  const by = valueOf(newest) - valueOf(older)
  return Math.abs(by) > DRIFT_FROM[of] ? [{ kind: 'drift', of, by, daysAgo: daysOf(newest) }] : []
}

/** Signs that an instrument measures too: a note that a valid reading contradicts counts less. */
const MEASURED_SIGNS = [
  { sign: 'deepBend', by: 'kneeAngle', way: 1 },
  { sign: 'locked', by: 'kneeAngle', way: -1 },
  { sign: 'aheadOfToes', by: 'plumb', way: 1 },
] as const

function withInstruments(index: Map<string, Prepared[]>): FindingIndex {
  for (const { sign, by, way } of MEASURED_SIGNS) {
    const notes = index.get(`seen ${sign}`)
    const reading = index.get(by)?.find(({ finding, isOld }) => !isOld && !isOfOtherType(finding))?.finding
    if (notes && reading)
      index.set(
        `seen ${sign}`,
        notes.map((one) => ({ ...one, measured: { reading, way } })),
      )
  }
  return index
}

/** Findings that nothing was changed under since. */
export const validFindings = (index: FindingIndex): Finding[] =>
  [...index.values()].flat().flatMap(({ finding, isOld }) => (isOld || finding.kind === 'drift' ? [] : [finding]))

/** The findings with one more measurement of today. */
export const withMeasurement = (index: FindingIndex, finding: Finding): FindingIndex =>
  new Map(index).set(keyOf(finding), [{ finding, isOld: false }])
