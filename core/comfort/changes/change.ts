import { axisOf, bottomCrankDeg, type BikeType } from '../../bikes/bike/bike'
import { crankMmAt } from '../../bikes/bike/standing'
import { axisPositions, contactPoints, type AxisPositions } from '../../bikes/bike/contactPoints'
import { ADJUSTMENTS, type CommonAxis } from '../../base/adjustments'
import type { Marks } from '../../base/conventions'
import { unitVector } from '../../base/geometry'
import { bottomFlexionDeg, kneeOverPedalMm, prepareLeg } from '../../riders/kinematics/leg'
import { DEFAULT_SOLE_MM } from '../../riders/rider/anthropometry'
import { bodyFromScores, PRIOR_PARTS, priorFor, priorVectorOf } from '../../riders/rider/prior'
import { positionsOf } from '../../bikes/scale/scale'
import type { School } from '../../base/school/school'
import { unmeasured, worsened } from './changeGuard'
import type { Change, ChangeInputs, Expected, NoChange, Proposal } from './changeTypes'
import { freshest, isAxisInside, windowOf } from '../findings/checksRead'
import { causeRow, type Cause, type ChangedAxis, type Way } from '../model/causeTable'
import type { Finding } from '../model/request'
import { offWindow } from '../model/windows'

/** Beyond this a tilt is called large, degrees (common practice, no source). */
const LARGE_TILT_DEG = 1
/**
 * The one change for a cause, or why there is none. It is measured by what was read: the leg of the mean rider who
 * would read the same. A change that takes a read check further outside its window is none.
 */
export function changeFor(cause: Cause, inputs: ChangeInputs): Proposal | NoChange {
  if (cause === 'cranksTooLong' && inputs.bikeType?.axes.crankLength) return shorterCranks(inputs)
  const remedy = causeRow(cause).change
  if (!remedy) return { code: 'notOfAnAxis' }
  const { axis, direction } = remedy
  const { bikeType, marks, findings } = inputs
  const measure = unmeasured(axis, cause, inputs)
  if (measure) return { code: 'measureFirst', axis, measure }
  if (axis !== 'tilt' && bikeType && !axisOf(bikeType, axis)) return { code: 'lacksAxis', axis }
  if (isAxisInside(axis, findings, inputs) && inputs.leadingWeight(axis) <= MUST_LEAD)
    return { code: 'alreadyRight', axis }
  if (axis === 'tilt') return tiltChange(direction, inputs)
  if (axis === 'crankLength') return shorterCranks(inputs)
  if (!bikeType || marks?.[axis] === undefined) {
    const mm = signed(direction, ADJUSTMENTS[axis].smallMm)
    const change: Change = { axis, direction, mm, large: false }
    const worse = worsened(change, roughly(change, findings), inputs)
    return worse ? { code: 'wouldWorsen', axis, check: worse } : { change, expect: [] }
  }
  const onward = marksOnward(bikeType, marks, axis, direction)
  if (onward.length === 0) return { code: 'atEnd', axis }
  const model = riderModel(findings, bikeType, marks, inputs.school)
  const proposalOf = (change: Change) => ({ change, expect: expectations(bikeType, marks, change, inputs, model) })
  const mm = stepMm(axis, direction, inputs, model)
  const slideInstead = (): Proposal | null => {
    if (axis !== 'seatHeight' || isBlocked('seatSlide', inputs)) return null
    // A saddle further back is further from the pedal, and the other way round.
    const way = direction === 'up' ? 'back' : 'forward'
    const [slide] = byNearness(marksOnward(bikeType, marks, 'seatSlide', way), ADJUSTMENTS.seatSlide.smallMm)
    const proposal = slide && proposalOf(slide)
    return proposal && !worsened(proposal.change, proposal.expect, inputs) ? proposal : null
  }
  const tried = byNearness(onward, mm).filter(
    (change) => Math.abs(change.mm!) <= Math.max(mm, nearestMm(onward)) + 1e-9,
  )
  const proposals = tried.map(proposalOf)
  const safe = proposals.find(({ change, expect }) => !worsened(change, expect, inputs))
  const slide = slideInstead()
  if (!safe) {
    if (slide) return slide
    return { code: 'wouldWorsen', axis, check: worsened(proposals[0].change, proposals[0].expect, inputs)! }
  }
  return { ...safe, ...(slide && safe.change.large && { orSlide: slide.change }) }
}

/**
 * Degrees of knee that a millimetre of seat height straightens, and millimetres of plumb line that one of slide
 * moves.
 */
const KNEE_DEG_PER_MM = 0.4
const PLUMB_PER_SLIDE = 0.8

/**
 * Expected effect of a change on the check of its own axis on an unknown bike: enough to separate better from
 * worse (common practice, no source: some 2 to 2.5 mm of seat a degree).
 */
function roughly({ axis, mm = 0 }: Change, findings: readonly Finding[]): Expected[] {
  const expected = (check: Expected['check'], from: number | undefined, by: number): Expected[] =>
    from === undefined ? [] : [{ check, from, to: from + by, by }]
  switch (axis) {
    case 'seatHeight':
      return expected('kneeFlexion', freshest(findings, 'kneeAngle')?.deg, -KNEE_DEG_PER_MM * mm)
    case 'seatSlide':
      return expected('plumb', freshest(findings, 'plumb')?.mm, PLUMB_PER_SLIDE * mm)
    case 'barHeight':
      return expected('barAgainstSaddle', freshest(findings, 'barsAgainstSaddle')?.mm, mm)
    default:
      return []
  }
}

/** An axis whose checks are all right is moved only where its cause has more than this of the weight. */
const MUST_LEAD = 0.5

const isBlocked = (axis: ChangedAxis, inputs: ChangeInputs): boolean =>
  isAxisInside(axis, inputs.findings, inputs) === true && inputs.leadingWeight(axis) <= MUST_LEAD

const signed = (direction: Way, mm: number): number => (direction === 'up' || direction === 'forward' ? mm : -mm)

function tiltChange(direction: Way, inputs: ChangeInputs): Proposal | NoChange {
  const reading = freshest(inputs.findings, 'tilt')!
  const off = offWindow(reading.deg, windowOf('tilt', inputs.findings, inputs))
  // Small steps first: one degree, or less where less brings it to its window.
  const toGo = direction === 'up' ? -off : off
  const deg = toGo > 0 && toGo < LARGE_TILT_DEG ? Math.max(0.5, Math.round(toGo * 2) / 2) : LARGE_TILT_DEG
  const by = direction === 'up' ? deg : -deg
  const change: Change = { axis: 'tilt', direction, deg: by, large: deg > LARGE_TILT_DEG }
  const expect: Expected[] = [{ check: 'tilt', from: reading.deg, to: reading.deg + by, by }]
  const worse = worsened(change, expect, inputs)
  return worse ? { code: 'wouldWorsen', axis: 'tilt', check: worse } : { change, expect }
}

/**
 * The next shorter cranks, where the type leaves a choice: the seat stays, so that the knee bends a little more at the
 * bottom and less at the top.
 */
function shorterCranks(inputs: ChangeInputs): Proposal | NoChange {
  const { bikeType, marks, findings, school } = inputs
  const axis = 'crankLength'
  const measure = unmeasured(axis, 'cranksTooLong', inputs)
  if (measure) return { code: 'measureFirst', axis, measure }
  const from = marks?.crankLength
  if (!bikeType || !marks || from === undefined) return { code: 'notOfAnAxis' }
  const hereMm = crankMmAt(bikeType, marks)
  const [to] = positionsOf(bikeType.axes.crankLength!.scale)
    .filter(({ mm }) => mm < hereMm)
    .toSorted((a, b) => b.mm - a.mm)
  if (!to) return { code: 'atEnd', axis }
  const large = hereMm - to.mm > ADJUSTMENTS.crankLength.largeMm + 1e-9
  const change: Change = { axis, direction: 'down', from, to: to.label, mm: to.mm - hereMm, large }
  const model = riderModel(findings, bikeType, marks, school)
  const at = axisPositions(bikeType, marks)
  const read = freshest(findings, 'kneeAngle')?.deg
  const by = model.onCranks(to.mm).flexionDeg(at) - model.flexionDeg(at)
  const expect: Expected[] = [{ check: 'kneeFlexion', ...(read !== undefined && { from: read, to: read + by }), by }]
  const worse = worsened(change, expect, inputs)
  return worse ? { code: 'wouldWorsen', axis, check: worse } : { change, expect }
}

/** Every mark of an axis beyond its current one in a direction, as changes, the nearest first. */
function marksOnward(bikeType: BikeType, marks: Marks, axis: CommonAxis, direction: Way): readonly Change[] {
  const has = axisOf(bikeType, axis)
  const label = marks[axis]
  if (!has || label === undefined) return []
  const u = unitVector(has.directionDeg)
  const grows =
    direction === 'up' ? u.y > 0 : direction === 'down' ? u.y < 0 : direction === 'forward' ? u.x > 0 : u.x < 0
  const sign = grows ? 1 : -1
  const here = axisPositions(bikeType, { [axis]: label })[axis]!
  return positionsOf(has.scale)
    .filter((position) => sign * (position.mm - here) > 1e-9)
    .toSorted((a, b) => sign * (a.mm - b.mm))
    .map((to) => ({
      axis,
      direction,
      from: label,
      to: to.label,
      mm: to.mm - here,
      large: Math.abs(to.mm - here) > ADJUSTMENTS[axis].largeMm + 1e-9,
    }))
}

const nearestMm = (onward: readonly Change[]): number => Math.abs(onward[0].mm!)

/** Those nearest to a length first; of two the smaller step. */
const byNearness = (onward: readonly Change[], mm: number): readonly Change[] =>
  onward.toSorted(
    (a, b) => Math.abs(Math.abs(a.mm!) - mm) - Math.abs(Math.abs(b.mm!) - mm) || Math.abs(a.mm!) - Math.abs(b.mm!),
  )

type LegModel = Readonly<{ flexionDeg: (at: AxisPositions) => number; plumbMm: (at: AxisPositions) => number }>
/** The leg on the cranks as they are, and on others. */
type RiderModel = LegModel & Readonly<{ onCranks: (crankMm: number) => LegModel }>

const TABLE = priorVectorOf(priorFor('natural'))
/** Standard scores of stature between which the rider is sought. */
const SCORES = [-6, 6] as const
const HALVINGS = 30

/** The mean rider of the stature whose knee bends here as was read, or as the middle of the window wants. */
function riderModel(findings: readonly Finding[], bikeType: BikeType, marks: Marks, school: School): RiderModel {
  const bottomDeg = bottomCrankDeg(bikeType)
  const crankMm = crankMmAt(bikeType, marks)
  const legOf = (score: number, onMm = crankMm) =>
    prepareLeg(
      bodyFromScores(TABLE, [score, ...PRIOR_PARTS.slice(1).map(() => 0)]),
      DEFAULT_SOLE_MM,
      { crankMm: onMm, pedalSurfaceMm: bikeType.pedalSurfaceMm },
      bottomDeg,
    )
  const seatAt = (at: AxisPositions) => contactPoints(bikeType, undefined, at).seat
  const here = seatAt(axisPositions(bikeType, marks))
  const [low, high] = school.kneeWindowDeg
  const targetDeg = freshest(findings, 'kneeAngle')?.deg ?? (low + high) / 2
  // A longer leg bends more on the same saddle.
  let [short, tall] = SCORES as readonly [number, number]
  for (let i = 0; i < HALVINGS; i++) {
    const middle = (short + tall) / 2
    if (bottomFlexionDeg(legOf(middle), here) < targetDeg) short = middle
    else tall = middle
  }
  const modelOn = (onMm: number): LegModel => {
    const leg = legOf((short + tall) / 2, onMm)
    return {
      flexionDeg: (at) => bottomFlexionDeg(leg, seatAt(at)),
      plumbMm: (at) => kneeOverPedalMm(leg, seatAt(at)),
    }
  }
  return { ...modelOn(crankMm), onCranks: modelOn }
}

/** Size of the step, mm: to the nearer edge of the window if its check was read, at most one step. */
function stepMm(axis: CommonAxis, direction: Way, inputs: ChangeInputs, model: RiderModel): number {
  const { findings, bikeType, marks, school } = inputs
  const most = ADJUSTMENTS[axis].mostMm
  const within = (mm: number) => Math.min(most, Math.max(ADJUSTMENTS[axis].smallMm, mm))
  if (axis === 'seatHeight') {
    const [low, high] = school.kneeWindowDeg
    const at = axisPositions(bikeType!, marks!)
    const sign = direction === 'up' ? 1 : -1
    // A degree inside the window's nearer edge.
    const edge = sign > 0 ? high - 1 : low + 1
    for (let mm = ADJUSTMENTS.seatHeight.smallMm; mm < most; mm += 1) {
      const deg = model.flexionDeg({ ...at, seatHeight: at.seatHeight! + sign * mm })
      if (sign * (edge - deg) >= 0) return mm
    }
    return most
  }
  const read = axis === 'seatSlide' ? freshest(findings, 'plumb') : freshest(findings, 'barsAgainstSaddle')
  if (axis === 'barSlide' || !read) return ADJUSTMENTS[axis].smallMm
  const check = axis === 'seatSlide' ? ('plumb' as const) : ('barAgainstSaddle' as const)
  return within(Math.abs(offWindow(read.mm, windowOf(check, findings, inputs))))
}

function expectations(
  bikeType: BikeType,
  marks: Marks,
  change: Change,
  { findings }: ChangeInputs,
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
