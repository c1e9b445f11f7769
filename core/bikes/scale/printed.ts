import type { Label } from '../../base/conventions'
import { MM_PER_INCH } from '../../base/length'
import type { PrintedMarks, Ruler, Scale } from './scale'

/** A scale as a manager describes it: what is printed, how far apart, and which way the later marks lie. */
export type PrintedScale =
  | Readonly<{ form: 'labels'; labels: readonly Label[]; spacingMm: number; firstMm: number; halfMarks: boolean }>
  | Readonly<{
      form: 'ruler'
      min: number
      max: number
      step: number
      unit: 'cm' | 'in' | 'mm'
      unitMm: number
      zeroMm: number
    }>
  | Readonly<{ form: 'irregular'; scale: PrintedMarks }>

const UNIT_MM = { mm: 1, cm: 10, in: MM_PER_INCH } as const
/** Marks this close to even spacing are taken as even, mm. */
const EVEN_MM = 0.01

/** The scale of a description; a negative spacing or unit means that later marks lie lower or farther back. */
export function scaleOf(printed: PrintedScale): Scale {
  if (printed.form === 'irregular') return printed.scale
  if (printed.form === 'labels') {
    const { labels, spacingMm, firstMm, halfMarks } = printed
    return { marks: labels.map((label, i) => ({ label, mm: firstMm + i * spacingMm })), halfMarks }
  }
  return {
    ruler: {
      min: printed.min,
      max: printed.max,
      resolution: printed.step,
      mmPerUnit: printed.unitMm,
      mmAtZero: printed.zeroMm,
    },
  }
}

/** The description of a scale; uneven marks stay as they are. `scaleOf(describeScale(s))` is `s` again, to 0.01 mm. */
export function describeScale(scale: Scale): PrintedScale {
  if ('ruler' in scale) return rulerOf(scale.ruler)
  const { marks, halfMarks } = scale
  const firstMm = marks[0].mm
  const spacingMm = marks.length > 1 ? (marks[marks.length - 1].mm - firstMm) / (marks.length - 1) : 20
  const even = marks.every(({ mm }, i) => Math.abs(mm - firstMm - i * spacingMm) < EVEN_MM)
  return even
    ? { form: 'labels', labels: marks.map((m) => m.label), spacingMm, firstMm, halfMarks }
    : { form: 'irregular', scale }
}

function rulerOf({ min, max, resolution, mmPerUnit, mmAtZero }: Ruler): PrintedScale {
  const near = (['cm', 'in', 'mm'] as const).find((unit) => Math.abs(Math.abs(mmPerUnit) / UNIT_MM[unit] - 1) < 0.1)
  return { form: 'ruler', min, max, step: resolution, unit: near ?? 'cm', unitMm: mmPerUnit, zeroMm: mmAtZero }
}

/** Nominal millimetres of a ruler's unit. */
export const unitMm = (unit: keyof typeof UNIT_MM): number => UNIT_MM[unit]

export type ParsedLabels =
  | Readonly<{ outcome: 'read'; labels: Label[] }>
  | Readonly<{ outcome: 'refused'; reason: 'empty' | 'tooMany' | 'twice' | 'badRange'; at: string }>

/** Most marks of one scale; more is a slip of the keyboard. */
const MAX_LABELS = 60

/**
 * Labels as typed in their order on the bike: single ones and ranges, apart by blanks or commas.
 * `parseLabels("A-H J-N")` → A … H, J … N; `parseLabels("5-1")` → 5, 4, 3, 2, 1.
 */
export function parseLabels(typed: string): ParsedLabels {
  const words = typed
    .trim()
    .split(/[\s,;]+/)
    .filter(Boolean)
  if (words.length === 0) return { outcome: 'refused', reason: 'empty', at: '' }
  const labels: Label[] = []
  for (const word of words) {
    const run = rangeOf(word)
    if (run === null) return { outcome: 'refused', reason: 'badRange', at: word }
    labels.push(...run)
    if (labels.length > MAX_LABELS) return { outcome: 'refused', reason: 'tooMany', at: word }
  }
  const again = labels.find((label, i) => labels.indexOf(label) < i)
  return again === undefined ? { outcome: 'read', labels } : { outcome: 'refused', reason: 'twice', at: again }
}

/** "1-15" or "A–H" spelled out, up or down; a word that is no range is itself; null for "A-7". */
function rangeOf(word: string): Label[] | null {
  const range = /^(\d{1,3}|[A-Za-z])[-–](\d{1,3}|[A-Za-z])$/.exec(word)
  if (!range) return word.length <= 20 ? [word] : null
  const numbers = range.slice(1).every((end) => /^\d+$/.test(end))
  const letters =
    range.slice(1).every((end) => /^[A-Z]$/.test(end)) || range.slice(1).every((end) => /^[a-z]$/.test(end))
  if (!numbers && !letters) return null
  const code = (end: string) => (numbers ? Number(end) : end.charCodeAt(0))
  const [from, to] = [code(range[1]), code(range[2])]
  const step = from <= to ? 1 : -1
  return Array.from({ length: Math.abs(to - from) + 1 }, (_, i) =>
    numbers ? String(from + i * step) : String.fromCharCode(from + i * step),
  )
}

/** Labels as one would type them, runs drawn together: 1 … 15 → "1-15". */
export function compactLabels(labels: readonly Label[]): string {
  const words: string[] = []
  for (let i = 0; i < labels.length;) {
    let end = i
    for (let j = i + 1; j < labels.length; j++) {
      const run = rangeOf(`${labels[i]}-${labels[j]}`)
      if (!run || run.length !== j - i + 1 || run.some((label, k) => label !== labels[i + k])) break
      end = j
    }
    if (end >= i + 2) words.push(`${labels[i]}-${labels[end]}`)
    else words.push(...labels.slice(i, end + 1))
    i = end + 1
  }
  return words.join(' ')
}
