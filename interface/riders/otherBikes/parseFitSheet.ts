import {
  lengthsFromSheet,
  sheetDoubts,
  type FitSheet,
  type SheetDoubt,
  type SheetLength,
} from '@/core/setups/translate/fitSheet'
import type { Source } from '@/core/setups/translate/translate'
import { parseLength, type UnitSystem } from '@/core/base/length'

/** A sheet as it is typed. */
export type TypedSheet = Readonly<Record<SheetLength, string>> & Pick<FitSheet, 'setbackFrom' | 'reachFrom'>

export const EMPTY_SHEET: TypedSheet = {
  saddleHeightMm: '',
  setbackMm: '',
  reachMm: '',
  stackMm: '',
  crankMm: '',
  setbackFrom: 'nose',
  reachFrom: 'nose',
}

/** A road saddle nobody measured: nose to widest part, and its length, mm. Common practice, no source. */
const USUAL_SADDLE = { noseAheadMm: 150, saddleLengthMm: 270 } as const

const LENGTHS: readonly SheetLength[] = ['saddleHeightMm', 'setbackMm', 'reachMm', 'stackMm', 'crankMm']

export type ParsedSheet =
  | Readonly<{ outcome: 'read'; from: Extract<Source, { crankMm: number }> }>
  /** What is missing or no length; nothing is wrong with fields left out of it. */
  | Readonly<{ outcome: 'unread'; wrong: readonly SheetLength[] }>
  | Readonly<{ outcome: 'asks'; doubts: readonly SheetDoubt[] }>

/** Reads a typed sheet; numbers without a unit are millimetres, or inches where the device shows those. */
export function parseFitSheet(typed: TypedSheet, shown: UnitSystem): ParsedSheet {
  const read = LENGTHS.map((length) => ({ length, ...parseLength(typed[length], shown === 'imperial' ? 'in' : 'mm') }))
  const wrong = read.filter(({ outcome }) => outcome === 'refused').map(({ length }) => length)
  if (wrong.length > 0) return { outcome: 'unread', wrong }
  const mm = Object.fromEntries(read.map((one) => [one.length, one.outcome === 'read' ? one.mm : 0])) as Record<
    SheetLength,
    number
  >
  const doubts = sheetDoubts(mm)
  if (doubts.length > 0) return { outcome: 'asks', doubts }
  const sheet: FitSheet = { ...mm, ...USUAL_SADDLE, setbackFrom: typed.setbackFrom, reachFrom: typed.reachFrom }
  return {
    outcome: 'read',
    from: { lengths: lengthsFromSheet(sheet), crankMm: sheet.crankMm, noseAheadMm: sheet.noseAheadMm },
  }
}
