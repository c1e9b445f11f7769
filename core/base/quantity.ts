import { parseLength } from './length'

/** Units a number field may have; '' for a plain count. */
export type QuantityUnit = '' | 'm' | 'cm' | 'mm' | '°' | 's' | 'min'

/** Millimetres a unit of length; other units are no lengths. */
const MM_PER: Readonly<Partial<Record<QuantityUnit, number>>> = { m: 1000, cm: 10, mm: 1 }
/** How people write the other units. */
const WRITTEN: Readonly<Partial<Record<QuantityUnit, RegExp>>> = {
  '°': /\s*(?:°|deg|degrees?)$/,
  s: /\s*(?:s|sec|seconds?)$/,
  min: /\s*(?:min|minutes?|′|')$/,
}

/** A number with point or comma, either minus, and spaces of any kind between thousands. */
const PLAIN = /^[+-]?(?:\d+(?:[.,]\d*)?|[.,]\d+)$/

/**
 * Reads a typed number in `unit`; a length may carry another unit: `parseQuantity('27,5', '°')` is 27.5,
 * `parseQuantity('2 cm', 'mm')` is 20, `parseQuantity('7,5', 'm')` is 7.5. Null for what is no number: nothing is
 * guessed, so a text with two separators is rejected.
 */
export function parseQuantity(typed: string, unit: QuantityUnit): number | null {
  const text = typed
    .trim()
    .toLowerCase()
    .replace(/[−–]/g, '-')
    .replace(/(?<=\d)[\s\u00A0\u202F’](?=\d{3}(?:\D|$))/g, '')
  const bare = text.replace(WRITTEN[unit] ?? /$/, '')
  if (PLAIN.test(bare)) return Number(bare.replace(',', '.'))
  const mmPerUnit = MM_PER[unit]
  if (mmPerUnit === undefined) return null
  const length = parseLength(text, 'mm')
  return length.outcome === 'read' && /[a-z"'″′]/.test(text) ? roundOff(length.mm / mmPerUnit) : null
}

/** Without the tail of binary fractions; a ten-thousandth of a unit is finer than any tape. */
const roundOff = (value: number): number => Math.round(value * 1e4) / 1e4
