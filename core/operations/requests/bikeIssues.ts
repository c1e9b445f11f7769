import { axesOf, axisOf, type Bike, type BikeType } from '../../bikes/bike/bike'
import { resolveMarks, type MarkIssue } from '../../bikes/bike/contactPoints'
import { ADJUSTMENTS, AXES, type AxisName, type Carries } from '../../base/adjustments'
import type { Marks } from '../../base/conventions'
import { furtherAxesOf, isPlain } from '../../bikes/bike/standing'
import { positionsOf, spacingMm } from '../../bikes/scale/scale'
import { REASON, type Issue } from '../../messages/words/issues'

/** Most stops a scale may have; more is a slip of the keyboard. */
const MAX_POSITIONS = 400

/**
 * Rules of a bike type that a schema cannot express: scales that contradict themselves. `at` is the type's own pointer.
 */
export function bikeTypeIssues(bikeType: BikeType, at: string): Issue[] {
  return [...scaleIssues(bikeType, at), ...(isPlain(bikeType) ? [] : furtherIssues(bikeType, at))]
}

function scaleIssues(bikeType: BikeType, at: string): Issue[] {
  return axesOf(bikeType).flatMap((name) => {
    const { scale } = axisOf(bikeType, name)!
    const here = `${at}/axes/${name}/scale`
    if ('ruler' in scale) {
      const { min, max, resolution, mmPerUnit } = scale.ruler
      if (max < min) return [{ pointer: `${here}/ruler/max`, reason: REASON.rulerEndsBelow() }]
      if (mmPerUnit === 0) return [{ pointer: `${here}/ruler/mmPerUnit`, reason: REASON.zeroUnit() }]
      if ((max - min) / resolution > MAX_POSITIONS)
        return [{ pointer: `${here}/ruler/resolution`, reason: REASON.tooManySteps(MAX_POSITIONS) }]
      return []
    }
    const positions = positionsOf(scale)
    const twice = scale.marks.flatMap((mark, i) =>
      scale.marks.findIndex((m) => m.label === mark.label) < i
        ? [{ pointer: `${here}/marks/${i}/label`, reason: REASON.labelTwice(mark.label) }]
        : [],
    )
    const sign = positions.length > 1 ? Math.sign(positions[positions.length - 1].mm - positions[0].mm) : 1
    const turning = scale.marks.flatMap((mark, i) =>
      i > 0 && Math.sign(mark.mm - scale.marks[i - 1].mm) !== sign
        ? [{ pointer: `${here}/marks/${i}/mm`, reason: REASON.notInOrder() }]
        : [],
    )
    return [...twice, ...turning]
  })
}

/** Directions this close to each other are one line, degrees: no hand and no tape tells them apart. */
const ONE_LINE_DEG = 2

/** What is wrong with further adjustments: two along one line, one that moves nothing, cranks without their length. */
function furtherIssues(bikeType: BikeType, at: string): Issue[] {
  const { order = [], axes } = bikeType
  const lacking = order.flatMap((name, i) =>
    axes[name] ? [] : [{ pointer: `${at}/order/${i}`, reason: REASON.noSuchAxis(bikeType.name, name) }],
  )
  const found = furtherAxesOf(bikeType).flatMap((name): Issue[] => {
    const { scale } = axes[name]!
    const here = `${at}/axes/${name}`
    if (spacingMm(scale) === 0) return [{ pointer: `${here}/scale`, reason: REASON.movesNothing() }]
    const isCrank = (mm: number) => mm >= CRANK_MM[0] && mm <= CRANK_MM[1]
    if (name === 'crankLength')
      return positionsOf(scale).every(({ mm }) => isCrank(mm))
        ? []
        : [{ pointer: `${here}/scale`, reason: REASON.noCrankLength(CRANK_MM) }]
    const along = axesOf(bikeType).find((other) => other !== name && isOneLine(bikeType, name, other))
    return along ? [{ pointer: `${here}/directionDeg`, reason: REASON.oneLine(along) }] : []
  })
  return [...lacking, ...found]
}

/** The shortest and the longest cranks there can be, as for a type's own, mm. */
const CRANK_MM = [50, 300] as const

/** Whether two adjustments move the same part along one line. */
function isOneLine({ axes }: BikeType, a: AxisName, b: AxisName): boolean {
  const part = (axis: AxisName) => PART[ADJUSTMENTS[axis].carries]
  if (part(a) === null || part(a) !== part(b)) return false
  const apart = Math.abs(axes[a]!.directionDeg - axes[b]!.directionDeg) % 180
  return Math.min(apart, 180 - apart) < ONE_LINE_DEG
}
const PART: Readonly<Record<Carries, string | null>> = {
  saddle: 'saddle',
  bars: 'bars',
  barTurn: 'bars',
  frame: 'frame',
  cranks: null,
  saddleTilt: null,
}

/** Offsets of axes this type does not have. */
export function bikeIssues(bikeType: BikeType, bike: Bike | undefined, at: string): Issue[] {
  const parts = ['offsetsMm', 'sdMm'] as const
  return parts.flatMap((part) =>
    AXES.filter((name) => bike?.[part]?.[name] !== undefined && !axisOf(bikeType, name)).map((name) => ({
      pointer: `${at}/${part}/${name}`,
      reason: REASON.noSuchAxis(bikeType.name, name),
    })),
  )
}

/** Labels the scales do not have, with the nearest, and axes the type lacks. */
export function marksIssues(bikeType: BikeType, marks: Marks | undefined, at: string): Issue[] {
  return resolveMarks(bikeType, marks ?? {}).issues.map((issue) => ({
    pointer: `${at}/${issue.axis}`,
    reason: markReason(bikeType, issue),
  }))
}

function markReason(bikeType: BikeType, issue: MarkIssue): string {
  return issue.code === 'noSuchAxis'
    ? REASON.noSuchAxis(bikeType.name, issue.axis)
    : REASON.noSuchLabel(issue.axis, issue.label, issue.nearest)
}

/** The same marks spelled as the scale spells them; expects marks without issues. */
export function canonicalMarks(bikeType: BikeType, marks: Marks): Marks {
  const { positions } = resolveMarks(bikeType, marks)
  return Object.fromEntries(
    AXES.filter((name) => marks[name] !== undefined).map((name) => {
      const position = positionsOf(axisOf(bikeType, name)!.scale).find((s) => Math.abs(s.mm - positions[name]!) < 1e-9)
      return [name, position?.label ?? marks[name]]
    }),
  )
}
