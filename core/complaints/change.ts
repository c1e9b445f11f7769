import { axisOf, bottomCrankDeg, type BikeType } from '../bike/bike'
import { axisPositions, contactPoints, type AxisPositions } from '../bike/contactPoints'
import { assessTilt } from '../bike/tilt'
import type { AxisName, Label, Marks } from '../conventions'
import { unitVector } from '../geometry'
import { bottomFlexionDeg, kneeOverPedalMm, prepareLeg } from '../kinematics/leg'
import { DEFAULT_SOLE_MM } from '../rider/anthropometry'
import { bodyFromScores, PRIOR_PARTS, priorFor, priorVectorOf } from '../rider/prior'
import { positionsOf, spacingMm } from '../scale/scale'
import type { School } from '../school/school'
import { causeRow, CHANGED_AXES, WAYS, type Cause } from './causeTable'
import type { ExplainRequest, Finding } from './request'

export type ChangedAxis = (typeof CHANGED_AXES)[number]
export type Way = (typeof WAYS)[number]

/** One change of the bike: from one mark to another, mm along the axis, or degrees of the saddle's tilt. */
export type Change = Readonly<{
  axis: ChangedAxis
  direction: Way
  from?: Label
  to?: Label
  mm?: number
  deg?: number
  /** More than 5 mm of seat height in one step (common practice, no source). */
  large: boolean
}>

/** What a check should read after a change; `from` only where it was read before. */
export type Expected = Readonly<{
  check: 'kneeFlexion' | 'plumb' | 'barAgainstSaddle' | 'tilt'
  from?: number
  to?: number
  /** How much it should move. */
  by: number
}>

/** A step of seat height beyond this is called large, mm (common practice, no source). */
export const LARGE_STEP_MM = 5
/** A step taken where nothing was measured, mm and degrees; the most that is changed at once. Ours. */
const SMALL_STEP_MM = 5
const MOST_MM: Readonly<Record<AxisName, number>> = { seatHeight: 30, seatSlide: 20, barHeight: 40, barSlide: 30 }
const SMALL_BAR_STEP_MM = 20
const SMALL_TILT_DEG = 1
const MOST_TILT_DEG = 3

type Asked = Pick<ExplainRequest, 'bikeType' | 'marks' | 'findings'> & Readonly<{ school: School }>
/** A change, what the checks should read then, and the slide where the height's marks are far apart. */
export type Proposal = Readonly<{ change: Change; expect: readonly Expected[]; orSlide?: Change }>

/**
 * The one change for a cause; null where it is not put right by moving an axis, or where that axis stands at its end or
 * is lacking. How far: by what was measured (the leg of the mean rider who would read the same), else a small step.
 */
export function changeFor(cause: Cause, asked: Asked): Proposal | null {
  const wanted = causeRow(cause).change
  if (!wanted) return null
  const { axis, direction } = wanted
  if (axis === 'tilt') return tiltChange(direction, asked)
  const { bikeType, marks } = asked
  if (!bikeType || marks?.[axis] === undefined) {
    const lacks = bikeType && !axisOf(bikeType, axis)
    if (lacks) return null
    const mm = axis === 'barHeight' ? SMALL_BAR_STEP_MM : SMALL_STEP_MM
    return { change: { axis, direction, mm: signed(direction, mm), large: false }, expect: [] }
  }
  const model = riderModel(asked.findings, bikeType, marks, asked.school)
  const mm = stepMm(axis, direction, asked, model)
  const change = stepTo(bikeType, marks, axis, direction, mm)
  if (!change) return null
  const expect = expectations(bikeType, marks, change, asked, model)
  const spacing = spacingMm(bikeType.axes[axis]!.scale)
  // A saddle further back is further from the pedal, and the other way round.
  const slide =
    axis === 'seatHeight' && spacing > LARGE_STEP_MM && Math.abs(change.mm!) > LARGE_STEP_MM
      ? stepTo(bikeType, marks, 'seatSlide', direction === 'up' ? 'back' : 'forward', SMALL_STEP_MM)
      : null
  // A knee that was read to be right is not carried out of the window by marks that are far apart.
  if (axis === 'seatHeight' && leavesWindow(expect, asked.school))
    return slide && { change: slide, expect: expectations(bikeType, marks, slide, asked, model) }
  return { change, expect, ...(slide && { orSlide: slide }) }
}

function leavesWindow(expect: readonly Expected[], { kneeWindowDeg: [low, high] }: School): boolean {
  const knee = expect.find(({ check }) => check === 'kneeFlexion')
  const within = (deg: number | undefined) => deg !== undefined && deg >= low && deg <= high
  return within(knee?.from) && !within(knee?.to)
}

const signed = (direction: Way, mm: number): number => (direction === 'up' || direction === 'forward' ? mm : -mm)

function tiltChange(direction: Way, { findings, bikeType, school }: Asked): Proposal {
  const reading = freshest(findings, 'tilt')
  let deg = SMALL_TILT_DEG
  if (reading) {
    const shape = reading.shape ?? bikeType?.saddle.shape ?? 'flat'
    const { windowDeg } = assessTilt({ deg: reading.deg, floorDeg: 0, across: 'highestPoints' }, shape, school.tilt)
    const middle = (windowDeg[0] + windowDeg[1]) / 2
    const toGo = direction === 'up' ? middle - reading.deg : reading.deg - middle
    deg = Math.min(MOST_TILT_DEG, Math.max(SMALL_TILT_DEG, Math.round(toGo * 2) / 2))
  }
  const by = direction === 'up' ? deg : -deg
  const change: Change = { axis: 'tilt', direction, deg: by, large: false }
  return { change, expect: reading ? [{ check: 'tilt', from: reading.deg, to: reading.deg + by, by }] : [] }
}

/** The mark nearest to where the axis should stand, at least one step on; null at the scale's end. */
function stepTo(bikeType: BikeType, marks: Marks, axis: AxisName, direction: Way, mm: number): Change | null {
  const has = axisOf(bikeType, axis)
  const label = marks[axis]
  if (!has || label === undefined) return null
  const u = unitVector(has.directionDeg)
  const grows =
    direction === 'up' ? u.y > 0 : direction === 'down' ? u.y < 0 : direction === 'forward' ? u.x > 0 : u.x < 0
  const sign = grows ? 1 : -1
  const here = axisPositions(bikeType, { [axis]: label })[axis]!
  const onward = positionsOf(has.scale)
    .filter((position) => sign * (position.mm - here) > 1e-9)
    .toSorted((a, b) => Math.abs(a.mm - here - sign * mm) - Math.abs(b.mm - here - sign * mm) || sign * (a.mm - b.mm))
  if (onward.length === 0) return null
  const to = onward[0]
  const moved = to.mm - here
  return {
    axis,
    direction,
    from: label,
    to: to.label,
    mm: moved,
    large: axis === 'seatHeight' && Math.abs(moved) > LARGE_STEP_MM,
  }
}

type RiderModel = Readonly<{ flexionDeg: (at: AxisPositions) => number; plumbMm: (at: AxisPositions) => number }>

const TABLE = priorVectorOf(priorFor('natural'))
/** Standard scores of stature between which the rider is sought. */
const SCORES = [-6, 6] as const
const HALVINGS = 30

/** The mean rider of the stature whose knee bends here as was read, or as the middle of the window wants. */
function riderModel(findings: readonly Finding[], bikeType: BikeType, marks: Marks, school: School): RiderModel {
  const bottomDeg = bottomCrankDeg(bikeType)
  const legOf = (score: number) =>
    prepareLeg(
      bodyFromScores(TABLE, [score, ...PRIOR_PARTS.slice(1).map(() => 0)]),
      DEFAULT_SOLE_MM,
      bikeType,
      bottomDeg,
    )
  const seatAt = (at: AxisPositions) => contactPoints(bikeType, undefined, at).seat
  const here = seatAt(axisPositions(bikeType, marks))
  const [low, high] = school.kneeWindowDeg
  const wanted = freshest(findings, 'kneeAngle')?.deg ?? (low + high) / 2
  // A longer leg bends more on the same saddle.
  let [short, tall] = SCORES as readonly [number, number]
  for (let i = 0; i < HALVINGS; i++) {
    const middle = (short + tall) / 2
    if (bottomFlexionDeg(legOf(middle), here) < wanted) short = middle
    else tall = middle
  }
  const leg = legOf((short + tall) / 2)
  return {
    flexionDeg: (at) => bottomFlexionDeg(leg, seatAt(at)),
    plumbMm: (at) => kneeOverPedalMm(leg, seatAt(at)),
  }
}

/** How far the axis should go, mm, by what was measured. */
function stepMm(
  axis: AxisName,
  direction: Way,
  { findings, bikeType, marks, school }: Asked,
  model: RiderModel,
): number {
  const most = MOST_MM[axis]
  const within = (mm: number) => Math.min(most, Math.max(SMALL_STEP_MM, mm))
  if (axis === 'seatHeight') {
    const knee = freshest(findings, 'kneeAngle')
    if (!knee) return SMALL_STEP_MM
    const [low, high] = school.kneeWindowDeg
    const middle = (low + high) / 2
    const at = axisPositions(bikeType!, marks!)
    const sign = direction === 'up' ? 1 : -1
    for (let mm = SMALL_STEP_MM; mm < most; mm += 1) {
      const deg = model.flexionDeg({ ...at, seatHeight: at.seatHeight! + sign * mm })
      if (sign * (middle - deg) >= 0) return mm
    }
    return most
  }
  if (axis === 'seatSlide') {
    const plumb = freshest(findings, 'plumb')
    return plumb ? within(Math.abs(plumb.mm)) : SMALL_STEP_MM
  }
  if (axis === 'barHeight') {
    const bars = freshest(findings, 'barsAgainstSaddle')
    return bars && bars.mm < 0 ? within(-bars.mm) : SMALL_BAR_STEP_MM
  }
  return SMALL_STEP_MM * 2
}

function expectations(
  bikeType: BikeType,
  marks: Marks,
  change: Change,
  { findings }: Asked,
  model: RiderModel,
): Expected[] {
  const before = axisPositions(bikeType, marks)
  const after = axisPositions(bikeType, { ...marks, [change.axis]: change.to })
  const expected = (check: Expected['check'], from: number | undefined, by: number): Expected => ({
    check,
    ...(from !== undefined && { from, to: from + by }),
    by,
  })
  const gripOverSeat = (at: AxisPositions) => {
    const { grip, seat } = contactPoints(bikeType, undefined, at)
    return grip.yMm - seat.yMm
  }
  const bars = freshest(findings, 'barsAgainstSaddle')?.mm
  const barsBy = gripOverSeat(after) - gripOverSeat(before)
  const ofBars = Math.abs(barsBy) > 1 ? [expected('barAgainstSaddle', bars, barsBy)] : []
  if (change.axis === 'barHeight' || change.axis === 'barSlide') return ofBars
  return [
    expected('kneeFlexion', freshest(findings, 'kneeAngle')?.deg, model.flexionDeg(after) - model.flexionDeg(before)),
    expected('plumb', freshest(findings, 'plumb')?.mm, model.plumbMm(after) - model.plumbMm(before)),
    ...ofBars,
  ]
}

/** The youngest finding of a kind that was made on a bike of this type. */
export function freshest<K extends Finding['kind']>(
  findings: readonly Finding[],
  kind: K,
): Extract<Finding, { kind: K }> | undefined {
  return findings
    .filter((one): one is Extract<Finding, { kind: K }> => one.kind === kind && !('otherType' in one && one.otherType))
    .toSorted((a, b) => (a.daysAgo ?? 0) - (b.daysAgo ?? 0))
    .at(0)
}
