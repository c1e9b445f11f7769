import type { Lengths } from '../../bikes/bike/contactPoints'
import { MM_PER_INCH } from '../../base/length'

/** Where on a saddle a sheet measures from: its nose, its middle, or the middle of its widest part. */
export const SADDLE_PLACES = ['nose', 'middle', 'seatPoint'] as const
export type SaddlePlace = (typeof SADDLE_PLACES)[number]

/** A bike by a tape or a fit sheet, mm, each length as that sheet understands it. */
export type FitSheet = Readonly<{
  saddleHeightMm: number
  setbackMm: number
  /** Behind the axle is plus. */
  setbackFrom: SaddlePlace
  reachMm: number
  reachFrom: SaddlePlace
  /** Grip above the axle. */
  stackMm: number
  crankMm: number
  noseAheadMm: number
  saddleLengthMm: number
}>

/** The four lengths as the tape here reads them: setback to the nose, reach from the seat point, mm. */
export function lengthsFromSheet(sheet: FitSheet): Lengths {
  const { saddleHeightMm, setbackMm, setbackFrom, reachMm, reachFrom, stackMm } = sheet
  const ahead = aheadOfSeatMm(sheet)
  return {
    saddleHeightMm,
    // The nose lies as far ahead of a place as it is ahead of the seat point, less what the place is.
    setbackMm: setbackMm - (ahead.nose - ahead[setbackFrom]),
    reachMm: reachMm + ahead[reachFrom],
    stackMm,
  }
}

/** How far each place of the saddle lies ahead of the seat point, mm. */
const aheadOfSeatMm = ({ noseAheadMm, saddleLengthMm }: FitSheet): Readonly<Record<SaddlePlace, number>> => ({
  nose: noseAheadMm,
  middle: noseAheadMm - saddleLengthMm / 2,
  seatPoint: 0,
})

export type SheetLength = 'saddleHeightMm' | 'setbackMm' | 'reachMm' | 'stackMm' | 'crankMm'

/** What bikes for people measure, mm: wide enough for any, too narrow for a slip of the unit. Ours. */
const USUAL_MM: Readonly<Record<SheetLength, readonly [number, number]>> = {
  saddleHeightMm: [450, 950],
  setbackMm: [-150, 400],
  reachMm: [300, 850],
  stackMm: [300, 950],
  crankMm: [140, 190],
}

/** A length no bike has, and what it would be had the unit slipped; `meantMm` null where no unit explains it. */
export type SheetDoubt = Readonly<{ length: SheetLength; mm: number; meantMm: number | null; unit?: 'cm' | 'in' }>

/**
 * Lengths that look like centimetres or inches read as millimetres: they need a confirmation and are never changed
 * silently.
 */
export function sheetDoubts(sheet: Pick<FitSheet, SheetLength>): SheetDoubt[] {
  return (Object.keys(USUAL_MM) as SheetLength[]).flatMap((length): SheetDoubt[] => {
    const mm = sheet[length]
    const [least, most] = USUAL_MM[length]
    const usual = (value: number) => value >= least && value <= most
    if (usual(mm)) return []
    const slipped = (
      [
        ['cm', 10],
        ['in', MM_PER_INCH],
      ] as const
    ).find(([, factor]) => usual(mm * factor))
    return [slipped ? { length, mm, meantMm: mm * slipped[1], unit: slipped[0] } : { length, mm, meantMm: null }]
  })
}
