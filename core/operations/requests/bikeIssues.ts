import { axesOf, axisOf, type Bike, type BikeType } from '../../bikes/bike/bike'
import { resolveMarks, type MarkIssue } from '../../bikes/bike/contactPoints'
import { AXES, type Marks } from '../../base/conventions'
import { positionsOf } from '../../bikes/scale/scale'
import { REASON, type Issue } from '../../messages/words/issues'

/** Most stops a scale may have; more is a slip of the keyboard. */
const MAX_POSITIONS = 400

/**
 * Rules of a bike type that a schema cannot express: scales that contradict themselves. `at` is the type's own pointer.
 */
export function bikeTypeIssues(bikeType: BikeType, at: string): Issue[] {
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
