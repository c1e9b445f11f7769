import { LENGTHS, reachFromNose, setbackFromWall, type LengthName } from '@/core/bikes/calibration/readings'
import { parseLength, type UnitSystem } from '@/core/base/length'
import { formatLengthRefusal, NO_LENGTH, WALL_NEEDS_BOTH } from '@/core/messages/words/lengths'

/** The fields of one setting: the four lengths, or what two of them are worked out from. */
export type TypedLengths = Readonly<Record<LengthName | 'wallAxle' | 'wallNose' | 'noseReach', string>>
export const EMPTY_LENGTHS: TypedLengths = Object.freeze({
  saddleHeightMm: '',
  setbackMm: '',
  reachMm: '',
  stackMm: '',
  wallAxle: '',
  wallNose: '',
  noseReach: '',
})

/** How setback and reach were taken: directly or against a wall behind, from the seat point or from the nose. */
export type TapeMethod = Readonly<{ setback: 'direct' | 'wall'; reach: 'seat' | 'nose' }>
export type ParsedTape = Readonly<{ lengths: Readonly<Partial<Record<LengthName, number>>>; wrong: string }>

/** The fields as millimetres; empty ones are left out, the first that is no length is refused in words. */
export function parseTape(typed: TypedLengths, how: TapeMethod, noseAheadMm: number, shown: UnitSystem): ParsedTape {
  const used: readonly (keyof TypedLengths)[] = [
    'saddleHeightMm',
    ...(how.setback === 'wall' ? (['wallAxle', 'wallNose'] as const) : (['setbackMm'] as const)),
    how.reach === 'nose' ? 'noseReach' : 'reachMm',
    'stackMm',
  ]
  const mm: Partial<Record<keyof TypedLengths, number>> = {}
  for (const field of used) {
    const read = parseLength(typed[field], shown === 'imperial' ? 'in' : 'mm')
    if (read.outcome === 'read') mm[field] = read.mm
    else if (read.reason !== 'empty')
      return { lengths: {}, wrong: formatLengthRefusal(read.reason, typed[field], shown) }
  }
  if (how.setback === 'wall' && (mm.wallAxle === undefined) !== (mm.wallNose === undefined))
    return { lengths: {}, wrong: WALL_NEEDS_BOTH }
  const found: Partial<Record<LengthName, number>> = {
    saddleHeightMm: mm.saddleHeightMm,
    setbackMm:
      mm.wallAxle !== undefined && mm.wallNose !== undefined ? setbackFromWall(mm.wallAxle, mm.wallNose) : mm.setbackMm,
    reachMm: mm.noseReach === undefined ? mm.reachMm : reachFromNose(mm.noseReach, noseAheadMm),
    stackMm: mm.stackMm,
  }
  const lengths = Object.fromEntries(
    LENGTHS.flatMap((length) => (found[length] === undefined ? [] : [[length, Number(found[length].toFixed(2))]])),
  )
  return { lengths, wrong: Object.keys(lengths).length === 0 ? NO_LENGTH : '' }
}
