/**
 * Lengths as people type and read them. Inside the core everything is millimetres; this is the one place that turns
 * centimetres, metres, feet and inches into them and back.
 */
export type PlainUnit = 'mm' | 'cm' | 'in'
/** How lengths are shown: centimetres and millimetres, or feet and inches. */
export const UNIT_SYSTEMS = ['metric', 'imperial'] as const
export type UnitSystem = (typeof UNIT_SYSTEMS)[number]
export type ParsedLength =
  | Readonly<{ outcome: 'read'; mm: number }>
  | Readonly<{ outcome: 'refused'; reason: 'empty' | 'notALength' | 'inchesOverAFoot' }>

/** International inch, exact since 1959 (international yard and pound agreement). */
export const MM_PER_INCH = 25.4
const MM_PER_FOOT = 12 * MM_PER_INCH

const MM_PER: Readonly<Record<string, number>> = { mm: 1, cm: 10, m: 1000, in: MM_PER_INCH, ft: MM_PER_FOOT }

/** A number with a point or a comma, or with a fraction: "5", "5.5", "5,5", "5 1/2", "1/2", "5½". */
const NUMBER = String.raw`(?:\d+(?:[.,]\d+)?(?:\s*[½¼¾]|\s+\d+/\d+)?|[.,]\d+|[½¼¾]|\d+/\d+)`
const FEET = new RegExp(String.raw`^(${NUMBER})\s*(?:'|ft)(?:\s*(${NUMBER})\s*(?:"|in)?)?$`)
const ONE_UNIT = new RegExp(String.raw`^([+-]?)(${NUMBER})\s*(mm|cm|m|in|")?$`)
const FRACTION: Readonly<Record<string, number>> = { '½': 0.5, '¼': 0.25, '¾': 0.75 }

/**
 * Reads a typed length. A number without a unit is taken in `plain`: `parseLength("163", "cm")`, `parseLength("1.63 m",
 * "cm")`, `parseLength("64 in", "cm")` and `parseLength("5'4", "cm")` give 1630, 1630, 1625.6 and 1625.6 mm. Refused,
 * never guessed: an empty field, what is no length, and twelve or more inches beside feet.
 */
export function parseLength(typed: string, plain: PlainUnit): ParsedLength {
  const text = tidied(typed)
  if (text === '') return { outcome: 'refused', reason: 'empty' }
  const feet = FEET.exec(text)
  if (feet) {
    const inches = feet[2] === undefined ? 0 : valueOf(feet[2])
    return inches >= 12
      ? { outcome: 'refused', reason: 'inchesOverAFoot' }
      : finite(valueOf(feet[1]) * MM_PER_FOOT + inches * MM_PER_INCH)
  }
  const one = ONE_UNIT.exec(text)
  if (!one) return { outcome: 'refused', reason: 'notALength' }
  const unit = one[3] === '"' ? 'in' : (one[3] ?? plain)
  return finite((one[1] === '-' ? -1 : 1) * valueOf(one[2]) * MM_PER[unit])
}

/** A number of millimetres, unless something was divided by nothing or had hundreds of digits. */
const finite = (mm: number): ParsedLength =>
  Number.isFinite(mm) ? { outcome: 'read', mm } : { outcome: 'refused', reason: 'notALength' }

/** Spellings of one thing made one: primes and quotes, unit words, the true minus. */
function tidied(typed: string): string {
  return typed
    .trim()
    .toLowerCase()
    .replace(/−/g, '-')
    .replace(/''|[″”“]/g, '"')
    .replace(/[′’‘]/g, "'")
    .replace(/\b(?:inches|inch|ins)\b|in\./g, 'in')
    .replace(/\b(?:feet|foot)\b|ft\./g, 'ft')
    .replace(/\b(?:metres?|meters?)\b/g, 'm')
}

function valueOf(text: string): number {
  const [, over, under] = /(?:^|\s)(\d+)\/(\d+)$/.exec(text) ?? []
  const [glyph] = /[½¼¾]$/.exec(text) ?? []
  const part = over ? Number(over) / Number(under) : glyph ? FRACTION[glyph] : 0
  const whole = text.replace(/(?:^|\s)\d+\/\d+$|[½¼¾]$/, '').trim()
  return Number(whole.replace(',', '.')) + part
}

/**
 * A body length as the device shows it: `formatBodyLength(1630, 'metric')` → "163 cm", `(1630, 'imperial')` → "5′4″".
 */
export function formatBodyLength(mm: number, shown: UnitSystem): string {
  if (shown === 'metric') return `${Number((mm / 10).toFixed(1))} cm`
  const halves = Math.round((2 * mm) / MM_PER_INCH)
  const feet = Math.floor(halves / 24)
  const inches = `${Math.floor((halves % 24) / 2) || (halves % 2 && feet === 0 ? '' : 0)}${halves % 2 ? '½' : ''}″`
  return feet === 0 ? inches : `${feet}′${inches}`
}

/**
 * A bike length as the device shows it: whole millimetres, or inches to a sixteenth: `(700, 'imperial')` → "27
 * 9/16″".
 */
export function formatBikeLength(mm: number, shown: UnitSystem): string {
  if (shown === 'metric') return `${signed(Math.round(mm))} mm`
  const sixteenths = Math.round((16 * Math.abs(mm)) / MM_PER_INCH)
  const whole = Math.floor(sixteenths / 16)
  const rest = sixteenths % 16
  const shared = rest === 0 ? 16 : greatestShared(rest, 16)
  const fraction = rest === 0 ? '' : `${rest / shared}/${16 / shared}`
  return (
    `${mm < 0 && sixteenths > 0 ? '−' : ''}` +
    `${[whole > 0 || !fraction ? whole : '', fraction].filter((part) => part !== '').join(' ')}` +
    '″'
  )
}

const signed = (whole: number): string => (whole < 0 ? `−${-whole}` : String(whole === 0 ? 0 : whole))
const greatestShared = (a: number, b: number): number => (b === 0 ? a : greatestShared(b, a % b))
