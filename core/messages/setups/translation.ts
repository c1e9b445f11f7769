import type { BikeType } from '../../bikes/bike/bike'
import type { SheetDoubt, SheetLength } from '../../setups/translate/fitSheet'
import type { OutOfRange, Translation } from '../../setups/translate/translate'
import type { AxisName } from '../../base/conventions'
import { formatBikeLength, type UnitSystem } from '../../base/length'
import { formatLabel, formatMarks } from '../words/labels'
import {
  AXIS_NAME,
  axisName,
  capitalized,
  formatDegrees,
  formatHalfMm,
  formatLength,
  formatList,
} from '../words/phrases'

/** Differences below this are not felt and not reported, mm. */
const MIN_SHOWN_MM = 1.5
const MIN_SHOWN_DEG = 0.5

/** The numbers on the other bike in one sentence, and what they rest on. */
export function formatTranslation(
  to: BikeType,
  translation: Translation,
  shown: UnitSystem = 'metric',
): Readonly<{ sentence: string; because: string[] }> {
  const { marks, outOfRange, residueMm, contact, kneeBeforeDeg, kneeChangeDeg, byBelief, assumed } = translation
  const missing = outOfRange.filter(({ axis }) => axis === 'seatHeight' || axis === 'seatSlide')
  const then = missing.length === 0 ? formatLeftOver(translation, shown) : ', the nearest it offers: offer another type'
  const length = (mm: number) => formatLength(mm, shown)
  const crankMm = contact.wanted.crankMm - contact.before.crankMm
  const surfaceMm = contact.wanted.pedalSurfaceMm - contact.before.pedalSurfaceMm
  const axes = (names: readonly AxisName[]) => formatList(names.map((axis) => AXIS_NAME[axis]))
  const reasons: readonly (readonly [holds: boolean, text: string])[] = [
    [crankMm >= MIN_SHOWN_MM, `Its cranks are ${formatHalfMm(crankMm, shown)} longer, so the saddle goes down.`],
    [crankMm <= -MIN_SHOWN_MM, `Its cranks are ${formatHalfMm(crankMm, shown)} shorter, so the saddle goes up.`],
    [
      Math.abs(surfaceMm) >= MIN_SHOWN_MM,
      `Its pedals stand ${length(surfaceMm)} ${surfaceMm > 0 ? 'higher' : 'lower'}, and the saddle with them.`,
    ],
    ...outOfRange.map((one) => [true, formatOutOfRange(to, one, shown)] as const),
    [
      Math.abs(kneeChangeDeg) >= MIN_SHOWN_DEG,
      `A knee of ${formatDegrees(kneeBeforeDeg)} becomes about ${formatDegrees(kneeBeforeDeg + kneeChangeDeg)} there.`,
    ],
    [
      !to.axes.barSlide && Math.abs(residueMm.reachMm) >= MIN_SHOWN_MM,
      `Its bars do not slide: a reach ${length(residueMm.reachMm)} ${residueMm.reachMm > 0 ? 'longer' : 'shorter'}.`,
    ],
    [byBelief.length > 0, `The ${axes(byBelief)} is the neighbour that suits what was read of this rider.`],
    [assumed.length > 0, `Nobody said where the ${axes(assumed)} stood: taken at its zero.`],
    [
      true,
      'The saddle keeps its distance to the farthest pedal and its place behind the axle; the bars keep their place.',
    ],
  ]
  const because = reasons.filter(([applies]) => applies).map(([, text]) => text)
  return { sentence: `On ${to.name}: ${formatMarks(to, marks)}${then}.`, because }
}

/** ": just as before", or in a sentence of its own what differs. */
function formatLeftOver(
  { residueMm: { saddleHeightMm, setbackMm, reachMm }, barsAgainstSaddleMm }: Translation,
  shown: UnitSystem,
): string {
  const parts = [
    [saddleHeightMm, 'the saddle', 'higher', 'lower'],
    [setbackMm, 'the saddle', 'farther back', 'farther forward'],
    [reachMm, 'the reach', 'longer', 'shorter'],
    [barsAgainstSaddleMm, 'the bars', 'higher against the saddle', 'lower against the saddle'],
  ] as const
  const visible = parts.filter(([mm]) => Math.abs(mm) >= MIN_SHOWN_MM)
  if (visible.length === 0) return ': just as before'
  const off = ([mm, , more, less]: (typeof parts)[number]) => `${formatLength(mm, shown)} ${mm > 0 ? more : less}`
  const whats = [...new Set(visible.map(([, what]) => what))]
  const differs = formatList(
    whats.map(
      (what) =>
        `${what} ${visible
          .filter((part) => part[1] === what)
          .map(off)
          .join(', ')}`,
    ),
  )
  return `. Left over: ${differs}`
}

const formatOutOfRange = (to: BikeType, { axis, nearest, missingMm }: OutOfRange, shown: UnitSystem): string =>
  `${capitalized(axisName(to, axis))}: ends at ${formatLabel(to, axis, nearest)}, ` +
  `${formatLength(missingMm, shown)} short.`

/** Names of a sheet's lengths. */
export const SHEET_LENGTH_NAME: Readonly<Record<SheetLength, string>> = Object.freeze({
  saddleHeightMm: 'Saddle height',
  setbackMm: 'Setback',
  reachMm: 'Reach',
  stackMm: 'Stack',
  crankMm: 'Crank',
})

/** A length no bike has, as a question where a unit explains it. */
export function formatSheetDoubt({ length, mm, meantMm, unit }: SheetDoubt, shown: UnitSystem): string {
  const is = `${SHEET_LENGTH_NAME[length]} ${formatBikeLength(mm, shown)} is no bike’s`
  if (meantMm === null) return `${is}. Measure it once more.`
  return `${is}: were ${unit === 'cm' ? 'centimetres' : 'inches'} meant, ${formatBikeLength(meantMm, shown)}?`
}
