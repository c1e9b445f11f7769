import type { AxisName, Marks } from '../../../base/conventions'
import { ADJUSTMENTS, SEAT_AXES } from '../../../base/adjustments'
import { unitVector } from '../../../base/geometry'
import { axesOf, type BikeType } from '../../../bikes/bike/bike'
import { furtherAxesOf, furtherMarks, onType, withDefaults } from '../../../bikes/bike/standing'
import { positionsOf } from '../../../bikes/scale/scale'
import { poseAt } from '../../../riders/kinematics/pose'
import { positionAt } from '../bars/bars'
import type { Knowledge } from '../knowledge/belief'
import type { Advice } from '../knowledge/advice'
import type { MarkChance, Move, Next } from '../request/request'
import { MIN_GAIN, saddlePositionAt, SMALL_CHANCE, type SaddleSearch } from '../saddle/saddleSearch'
import { barFurtherAxes, furtherPlan, type FurtherPlan } from './furtherPlan'

/** A machine with its further adjustments at known marks: how the saddle is searched there, and the advice for it. */
export type Standing = Readonly<{ search: SaddleSearch; advice: () => Advice }>

/**
 * Advice for a type with further adjustments, or without a slide. At the start they are placed with the rest; later
 * they stay, unless seat height or slide has ended or hardly any mark is right, and one of them helps.
 */
export function adviseFurther(known: Knowledge, at: (further: Marks) => Standing): Advice {
  const { bikeType, started } = known
  const standing = furtherMarks(bikeType, withDefaults(bikeType, known.now))
  const remembered = new Map<string, Standing>()
  const standingAs = (further: Marks): Standing => {
    const key = JSON.stringify(further)
    const found = remembered.get(key) ?? at(further)
    remembered.set(key, found)
    return found
  }
  const plan = () =>
    furtherPlan({
      bikeType,
      standing,
      searchAt: (further) => standingAs(further).search,
      topFlexionDeg: (seat, crankMm) => topFlexionDeg(known, standingAs(standing).advice().belief.rider, seat, crankMm),
      mayChangeCranks: !started,
    })
  if (!started) return startWith(known, plan(), standingAs)
  const here = standingAs(standing).advice()
  const moved = isStuck(here) ? helpedBy(known, here, plan(), standing, standingAs) : null
  return onOwnType(known, standing, standingAs(standing).search, moved ?? here)
}

/** Nothing that the common four can do makes the saddle right. */
const isStuck = ({ next }: Advice): boolean =>
  !next.meant && !next.readAgain && (next.kind === 'outOfRange' || next.smallChance !== undefined)

function startWith(known: Knowledge, plan: FurtherPlan, at: (further: Marks) => Standing): Advice {
  const barsPlan = planBarsFurther(known.bikeType, plan.marks, at)
  const advice = at(barsPlan).advice()
  const gain = plan.chance - plan.standingChance
  const { next } = advice
  const reasons: Next['reasons'] = [
    ...next.reasons,
    ...(plan.cranks ? [plan.cranks] : []),
    ...(gain > 0 && plan.marks !== undefined ? furtherReason(known, plan, gain) : []),
  ]
  const moves = [...next.moves, ...furtherMoves(known.bikeType, known.now, barsPlan)]
  return onOwnType(known, barsPlan, at(barsPlan).search, { ...advice, next: { ...next, moves, reasons } })
}

/** The adjustments that the plan moves away from where they stand, with what that gains. */
function furtherReason({ bikeType, now }: Knowledge, { marks }: FurtherPlan, gain: number): Next['reasons'] {
  const standing = withDefaults(bikeType, now)
  const axes = furtherAxesOf(bikeType).filter((axis) => SEAT_AXES.includes(axis) && marks[axis] !== standing[axis])
  return axes.length > 0 ? [{ code: 'further', axes, gain }] : []
}

/** A change of a further adjustment, seat height and slide as serves best beside it; null where none helps. */
function helpedBy(
  known: Knowledge,
  here: Advice,
  plan: FurtherPlan,
  standing: Marks,
  at: (further: Marks) => Standing,
): Advice | null {
  const gain = plan.chance - plan.standingChance
  if (gain < MIN_GAIN * Math.min(1, plan.standingChance / SMALL_CHANCE) || gain <= 0) return null
  const there = at(plan.marks).advice()
  if (there.next.kind === 'outOfRange') return null
  const saddle = there.next.moves.filter(({ axis }) => axis === 'seatHeight' || axis === 'seatSlide')
  return {
    ...here,
    next: {
      kind: 'change',
      moves: [...furtherMoves(known.bikeType, standing, plan.marks).filter(({ mm }) => mm !== 0), ...saddle],
      expect: there.next.expect.map(({ check, unit, to, spread }) => ({ check, unit, to, spread })),
      checks: ['kneeFlexion', ...(known.followed.foreAft === 'unused' ? [] : (['plumb'] as const)), 'barAgainstSaddle'],
      reasons: [
        ...here.next.reasons.filter(({ code }) => code !== 'noBetterMark'),
        ...furtherReason(known, plan, gain),
      ],
    },
  }
}

const furtherMoves = (bikeType: BikeType, now: Marks, to: Marks): Move[] =>
  furtherAxesOf(bikeType).map((axis) => {
    const [from, goal] = [positionAt(bikeType, axis, now[axis]), positionAt(bikeType, axis, to[axis])!]
    return { axis, ...(from && { from: from.label }), to: goal.label, mm: from ? goal.mm - from.mm : 0 }
  })

/** Bars that suit fewer than this at their first setting are worth a further adjustment of theirs. */
const FEW_BARS = 0.3

/** Where the bars can hardly be right: their further adjustment at the mark that helps most. */
function planBarsFurther(bikeType: BikeType, marks: Marks, at: (further: Marks) => Standing): Marks {
  const axes = barFurtherAxes(bikeType)
  if (axes.length === 0) return marks
  const here = at(marks).advice().bars
  if (here.chance >= FEW_BARS && here.fits) return marks
  const tried = axes.flatMap((axis) => {
    const all = positionsOf(bikeType.axes[axis]!.scale)
    return [all[0], all[Math.floor(all.length / 2)], all[all.length - 1]].map(({ label }) => ({
      ...marks,
      [axis]: label,
    }))
  })
  const worth = (bars: Advice['bars']) => bars.chance + (bars.fits ? FEW_BARS : 0)
  return tried.reduce((best, one) => (worth(at(one).advice().bars) > worth(at(best).advice().bars) ? one : best), marks)
}

/** Knee flexion at the top of the stroke of the mean rider, degrees; 0 where the foot does not come there. */
function topFlexionDeg(
  { readings }: Knowledge,
  rider: Advice['belief']['rider'],
  seat: Parameters<typeof poseAt>[1]['seat'],
  crankMm: number,
): number {
  const grip = { xMm: seat.xMm + 600, yMm: seat.yMm }
  const pose = poseAt(rider, { seat, grip }, { crankMm, pedalSurfaceMm: readings.footing.pedalSurfaceMm }, 0)
  return 'kneeFlexionDeg' in pose ? pose.kneeFlexionDeg : 0
}

/** The advice in the marks of the type itself: without a slide it lacks, with its further adjustments. */
function onOwnType({ bikeType, onCranks }: Knowledge, further: Marks, search: SaddleSearch, advice: Advice): Advice {
  const has = ({ axis }: Readonly<{ axis: AxisName }>) => bikeType.axes[axis] !== undefined
  const order = axesOf(bikeType)
  const { seatSlide: slideChances, ...chances } = advice.chances
  const { seatSlide: slideAlone, ...tryAlone } = advice.tryAlone
  const slides = bikeType.axes.seatSlide !== undefined
  return {
    ...advice,
    chances: {
      ...chances,
      ...(slides && slideChances && { seatSlide: slideChances }),
      ...furtherChances(bikeType, further, search, advice.marks, onCranks),
    },
    tryAlone: { ...tryAlone, ...(slides && slideAlone && { seatSlide: slideAlone }) },
    marks: onType(bikeType, advice.marks, further),
    next: {
      ...advice.next,
      moves: advice.next.moves.filter(has).toSorted((a, b) => order.indexOf(a.axis) - order.indexOf(b.axis)),
    },
  }
}

/** Per mark of a further adjustment of the saddle: the chance of its own check, with the rest as it stands. */
function furtherChances(
  bikeType: BikeType,
  further: Marks,
  search: SaddleSearch,
  marks: Marks,
  onCranks: Knowledge['onCranks'],
): Advice['chances'] {
  const height = positionAt(search.bikeType, 'seatHeight', marks.seatHeight)!
  const slide = positionAt(search.bikeType, 'seatSlide', marks.seatSlide)!
  const { seat } = saddlePositionAt(search, height, slide)
  const { targets } = onCranks(search.bikeType.crankMm)
  const axes = furtherAxesOf(bikeType).filter((axis) => SEAT_AXES.includes(axis))
  return Object.fromEntries(
    axes.map((axis) => {
      const u = unitVector(bikeType.axes[axis]!.directionDeg)
      const standsMm = positionAt(bikeType, axis, further[axis])?.mm ?? 0
      const own = ADJUSTMENTS[axis].upright && Math.abs(u.y) >= 0.5 ? targets.kneeChance : targets.plumbChance
      const list = positionsOf(bikeType.axes[axis]!.scale).map(({ label, mm }): MarkChance => {
        const by = mm - standsMm
        return { label, mm, chance: own({ xMm: seat.xMm + u.x * by, yMm: seat.yMm + u.y * by }) }
      })
      return [axis, list]
    }),
  )
}
