import { Type } from '@sinclair/typebox'
import { labelSchema, lengthMmSchema, type Label } from '../../base/conventions'
import { between, closed, type Plain } from '../../base/schema'

/** Holes or letters as printed, in order along the axis. */
export const printedMarksSchema = closed({
  marks: Type.Array(closed({ label: labelSchema, mm: lengthMmSchema }), { minItems: 1, maxItems: 200 }),
  halfMarks: Type.Boolean(),
})
export type PrintedMarks = Plain<typeof printedMarksSchema>

/**
 * A ruler: mm = mmAtZero + value · mmPerUnit; `mmPerUnit` is negative where the larger number lies lower or farther
 * back.
 */
export const rulerSchema = closed({
  min: between(-1000, 1000),
  max: between(-1000, 1000),
  resolution: Type.Number({ exclusiveMinimum: 0, maximum: 1000 }),
  mmPerUnit: between(-1000, 1000),
  mmAtZero: lengthMmSchema,
})
export type Ruler = Plain<typeof rulerSchema>

export type Scale = PrintedMarks | Readonly<{ ruler: Ruler }>
export const scaleSchema = Type.Unsafe<Scale>({
  type: 'object',
  if: { required: ['ruler'] },
  then: closed({ ruler: rulerSchema }),
  else: printedMarksSchema,
})

/** A place an axis can be closed at: its label and its position along the axis, mm. */
export type ScalePosition = Readonly<{ label: Label; mm: number }>

/** Every place this scale can be closed at, in the order printed, half marks between their neighbours. */
export function positionsOf(scale: Scale): readonly ScalePosition[] {
  const cached = positionsCache.get(scale)
  if (cached) return cached
  const positions = Object.freeze('ruler' in scale ? rulerPositions(scale.ruler) : printedPositions(scale))
  positionsCache.set(scale, positions)
  return positions
}

/** Scales are immutable, and one answer needs their stops thousands of times. */
const positionsCache = new WeakMap<Scale, readonly ScalePosition[]>()

/**
 * Position of the smallest step a hand can set, mm; 0 for a scale of one mark. Used as the rounding of a reading at a
 * mark.
 */
export function spacingMm(scale: Scale): number {
  const positions = positionsOf(scale)
  if (positions.length < 2) return 0
  return Math.abs(positions[positions.length - 1].mm - positions[0].mm) / (positions.length - 1)
}

/** The stop nearest to a position. Ties go to the stop printed first. Outside the scale it is the end. */
export function nearestPosition(scale: Scale, mm: number): ScalePosition {
  return positionsOf(scale).reduce((best, position) =>
    Math.abs(position.mm - mm) < Math.abs(best.mm - mm) - 1e-9 ? position : best,
  )
}

/**
 * Where an axis starts without evidence: the stop nearest 0 mm, or the middle of the scale when 0 lies outside
 * it.
 */
export function middlePosition(scale: Scale): ScalePosition {
  const positions = positionsOf(scale)
  const low = Math.min(...positions.map((s) => s.mm))
  const high = Math.max(...positions.map((s) => s.mm))
  return nearestPosition(scale, low <= 0 && high >= 0 ? 0 : (low + high) / 2)
}

export type FoundPosition =
  Readonly<{ outcome: 'found'; stop: ScalePosition }> | Readonly<{ outcome: 'noSuchLabel'; nearest: readonly Label[] }>

/**
 * Looks a label up as typed: a leading plus is read, a label the scale does not have comes back with its nearest
 * labels.
 */
export function findPosition(scale: Scale, label: Label): FoundPosition {
  const positions = positionsOf(scale)
  const text = label.trim().replace(/^\+/, '')
  const exact = positions.find((s) => s.label === text)
  if (exact) return { outcome: 'found', stop: exact }
  const value = numberOf(text)
  const equal =
    value === null
      ? undefined
      : positions.find((s) => numberOf(s.label) !== null && Math.abs(numberOf(s.label)! - value) < 1e-9)
  if (equal && 'ruler' in scale) return { outcome: 'found', stop: equal }
  return { outcome: 'noSuchLabel', nearest: nearestLabels(positions, text) }
}

/**
 * The same labels with every position multiplied: a spacing that turned out otherwise, or with −1 an axis turned
 * round.
 */
export function scaledBy(scale: Scale, factor: number): Scale {
  if ('ruler' in scale)
    return {
      ruler: { ...scale.ruler, mmPerUnit: scale.ruler.mmPerUnit * factor, mmAtZero: scale.ruler.mmAtZero * factor },
    }
  return { ...scale, marks: scale.marks.map(({ label, mm }) => ({ label, mm: mm * factor })) }
}

function printedPositions({ marks, halfMarks }: PrintedMarks): ScalePosition[] {
  return marks.flatMap((mark, i) => {
    const next = marks[i + 1]
    const own = { label: mark.label, mm: mark.mm }
    return halfMarks && next ? [own, { label: halfLabel(mark.label, next.label), mm: (mark.mm + next.mm) / 2 }] : [own]
  })
}

/** "6" and "7" → "6.5"; "C" and "D" → "C/D". */
function halfLabel(a: Label, b: Label): Label {
  const m = Number(a)
  const n = Number(b)
  const neighbours = /^-?\d+$/.test(a) && /^-?\d+$/.test(b) && Math.abs(m - n) === 1
  return neighbours ? String((m + n) / 2) : `${a}/${b}`
}

function rulerPositions(ruler: Ruler): ScalePosition[] {
  const count = Math.floor((ruler.max - ruler.min) / ruler.resolution + 1e-9)
  const decimals = decimalsOf(ruler)
  return Array.from({ length: count + 1 }, (_, k) => {
    const value = Number((ruler.min + k * ruler.resolution).toFixed(decimals))
    return { label: String(value === 0 ? 0 : value), mm: ruler.mmAtZero + value * ruler.mmPerUnit }
  })
}

function decimalsOf(ruler: Ruler): number {
  const fraction = (n: number) => (String(n).split('.')[1] ?? '').length
  return Math.min(6, Math.max(fraction(ruler.resolution), fraction(ruler.min)))
}

const numberOf = (label: Label): number | null => (/^[+-]?\d+(\.\d+)?$/.test(label) ? Number(label) : null)

/** One or two labels closest to what was typed: by value where both are numbers, by letter otherwise. */
function nearestLabels(positions: readonly ScalePosition[], label: Label): Label[] {
  const rank = (label: Label): number => numberOf(label) ?? label.toUpperCase().charCodeAt(0)
  const comparable = positions.filter((s) => (numberOf(s.label) === null) === (numberOf(label) === null))
  if (comparable.length === 0) return [positions[0].label, positions[positions.length - 1].label]
  const sorted = [...comparable].sort(
    (a, b) => Math.abs(rank(a.label) - rank(label)) - Math.abs(rank(b.label) - rank(label)),
  )
  return sorted.slice(0, 2).map((s) => s.label)
}
