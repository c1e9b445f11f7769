import type { Axis, BikeType } from '@/core/bikes/bike/bike'
import { CLAMP_TYPES, DEFAULT_EQUIPMENT, type ClampType, type BikeEquipment } from '@/core/bikes/bike/equipment'
import { ADJUSTMENTS, AXES, isCommon, type AxisName } from '@/core/base/adjustments'
import { unitVector } from '@/core/base/geometry'
import type { BikeTypeDocument } from '@/core/operations/typeFile'
import { compactLabels, describeScale, unitMm } from '@/core/bikes/scale/printed'
import { furtherAxesOf } from '@/core/bikes/bike/standing'
import { positionsOf, scaledBy, type Scale } from '@/core/bikes/scale/scale'
import { formatBikeLength, parseLength, type UnitSystem } from '@/core/base/length'

/** One axis as it is typed. `later`: the direction of the later or larger marks. */
export type AxisDraft = Readonly<{
  form: 'labels' | 'ruler' | 'irregular'
  labels: string
  spacing: string
  halfMarks: boolean
  min: string
  max: string
  step: string
  unit: 'cm' | 'in' | 'mm'
  later: 'more' | 'less'
  closing: ClampType
  /**
   * Values that are not typed: the place of the first mark or zero line lies, mm (a new slide's middle mark lies at 0:
   * there a set-up begins); a ruler's measured unit; marks brought in uneven.
   */
  originMm: number | 'middle'
  unitFactor: number
  uneven: Scale | null
  /** Slides are near level; how near came from a tape. */
  slideDeg: number
  /** Of a further adjustment: the direction it runs in, degrees (0 forward, 90 up), and its name as printed. */
  direction: string
  printedName: string
  riderOn: boolean
}>

/** A further hand position as it is typed, from the grip point. */
export type GripDraft = Readonly<{ name: string; ahead: string; above: string }>

export type TypeDraft = Readonly<{
  name: string
  crank: string
  pedalSurface: string
  axleHeight: string
  noseAhead: string
  saddleLength: string
  shape: BikeType['saddle']['shape']
  saddleHeight: string
  setback: string
  reach: string
  stack: string
  seatLean: string
  barLean: string
  axes: Readonly<Record<AxisName, AxisDraft>>
  seatSlides: boolean
  barSlides: boolean
  /** The further adjustments this type has. */
  further: readonly AxisName[]
  /** The order of the hand, where it is not the usual one. */
  order: readonly AxisName[]
  forearmGaugeValid: boolean
  equipment: BikeEquipment
  pedalSpacing: string
  /** Pedal axle to the surface of each side, where it differs from the usual; empty where it does not. */
  cageSurface: string
  cleatSurface: string
  grips: readonly GripDraft[]
}>

const isSlide = (axis: AxisName): boolean => !ADJUSTMENTS[axis].upright

const plainAxis = (
  labels: string,
  spacing: string,
  closing: ClampType,
  originMm: AxisDraft['originMm'] = 0,
): AxisDraft => ({
  form: 'labels',
  labels,
  spacing,
  halfMarks: false,
  min: '0',
  max: '20',
  step: '0.5',
  unit: 'cm',
  later: 'more',
  closing,
  originMm,
  unitFactor: 1,
  uneven: null,
  slideDeg: 0,
  direction: '90',
  printedName: '',
  riderOn: false,
})

/** A type nobody has described yet: usual sizes to begin from, no name. */
export const NEW_DRAFT: TypeDraft = Object.freeze({
  name: '',
  crank: '170 mm',
  pedalSurface: '14 mm',
  axleHeight: '300 mm',
  noseAhead: '150 mm',
  saddleLength: '270 mm',
  shape: 'flat',
  saddleHeight: '560 mm',
  setback: '10 mm',
  reach: '560 mm',
  stack: '600 mm',
  seatLean: '17',
  barLean: '0',
  axes: {
    seatHeight: plainAxis('1-15', '20', 'pin'),
    seatSlide: plainAxis('A-H', '10', 'knob', 'middle'),
    barHeight: plainAxis('1-10', '20', 'pin'),
    barSlide: plainAxis('1-6', '15', 'knob', 'middle'),
    frameHeight: plainAxis('A-F', '25', 'lever'),
    frameSlide: { ...plainAxis('1-5', '20', 'lever', 'middle'), direction: '0' },
    seatExtra: { ...plainAxis('1-5', '10', 'knob', 'middle'), direction: '45' },
    barExtra: { ...plainAxis('1-5', '15', 'knob', 'middle'), direction: '45' },
    crankLength: { ...plainAxis('165 170 175', '5', 'pin'), direction: '0' },
    saddleTilt: plainAxis('-2 -1 0 1 2', '5', 'knob', 'middle'),
    barTurn: { ...plainAxis('-2 -1 0 1 2', '15', 'lever', 'middle'), direction: '110' },
  },
  seatSlides: true,
  barSlides: true,
  further: [],
  order: [],
  forearmGaugeValid: true,
  equipment: DEFAULT_EQUIPMENT,
  pedalSpacing: '165 mm',
  cageSurface: '',
  cleatSurface: '',
  grips: [],
})

/** A type as one would type it. Lengths are those with every part at its own zero. */
export function draftFromDocument({ bikeType, equipment }: BikeTypeDocument, shown: UnitSystem): TypeDraft {
  const { seatOrigin, gripOrigin, saddle, axes } = bikeType
  const format = (mm: number) => formatExact(mm, shown)
  const formatIfAny = (mm: number | undefined) => (mm === undefined ? '' : format(mm))
  return {
    name: bikeType.name,
    crank: format(bikeType.crankMm),
    pedalSurface: format(bikeType.pedalSurfaceMm),
    axleHeight: format(bikeType.axleHeightMm),
    noseAhead: format(saddle.noseAheadMm),
    saddleLength: format(saddle.lengthMm),
    shape: saddle.shape,
    saddleHeight: format(Math.hypot(seatOrigin.xMm, seatOrigin.yMm)),
    setback: format(-(seatOrigin.xMm + saddle.noseAheadMm)),
    reach: format(gripOrigin.xMm - seatOrigin.xMm),
    stack: format(gripOrigin.yMm),
    seatLean: trimmed(facing(axes.seatHeight, 'seatHeight').directionDeg - 90),
    barLean: trimmed(90 - facing(axes.barHeight, 'barHeight').directionDeg),
    axes: Object.fromEntries(
      AXES.map((name) => [name, axes[name] ? axisDraft(axes[name], name, equipment) : NEW_DRAFT.axes[name]]),
    ) as TypeDraft['axes'],
    seatSlides: axes.seatSlide !== undefined,
    barSlides: axes.barSlide !== undefined,
    further: furtherAxesOf(bikeType),
    order: bikeType.order ?? [],
    forearmGaugeValid: bikeType.forearmGaugeValid,
    cageSurface: formatIfAny(bikeType.pedalSurfacesMm?.cage),
    cleatSurface: formatIfAny(bikeType.pedalSurfacesMm?.cleat),
    grips: (bikeType.grips ?? []).map(({ name, aheadMm, aboveMm }) => ({
      name,
      ahead: format(aheadMm),
      above: format(aboveMm),
    })),
    equipment,
    pedalSpacing: format(equipment.pedalSpacingMm),
  }
}

/**
 * Millimetres have hundredths; inches would round, so a type is typed in millimetres unless it is whole
 * sixteenths.
 */
function formatExact(mm: number, shown: UnitSystem): string {
  const inches = formatBikeLength(mm, shown)
  const back = parseLength(inches, 'mm')
  return shown === 'imperial' && back.outcome === 'read' && Math.abs(back.mm - mm) < 0.005
    ? inches
    : `${trimmed(mm)} mm`
}

/**
 * The same axis pointing up, or forward: one that was described the other way round is turned, its millimetres with
 * it.
 */
function facing({ scale, directionDeg }: Axis, name: AxisName): Axis {
  const u = unitVector(directionDeg)
  if ((isSlide(name) ? u.x : u.y) >= 0) return { scale, directionDeg }
  return { scale: scaledBy(scale, -1), directionDeg: directionDeg > 0 ? directionDeg - 180 : directionDeg + 180 }
}

const trimmed = (value: number): string => String(Number(value.toFixed(2)))

function axisDraft(axis: Axis, name: AxisName, equipment: BikeEquipment): AxisDraft {
  // A further adjustment may run any way: its direction is typed, and stays as it was described.
  const { scale, directionDeg } = isCommon(name) ? facing(axis, name) : axis
  const printed = describeScale(scale)
  const base = {
    ...NEW_DRAFT.axes[name],
    closing: equipment.closing[name] ?? CLAMP_TYPES[0],
    slideDeg: isSlide(name) ? directionDeg : 0,
    direction: trimmed(directionDeg),
    printedName: axis.name ?? '',
    riderOn: axis.riderOn ?? false,
  }
  if (name === 'crankLength') return cranksDraft(base, scale)
  if (printed.form === 'irregular') return { ...base, form: 'irregular', uneven: printed.scale }
  if (printed.form === 'labels')
    return {
      ...base,
      form: 'labels',
      labels: compactLabels(printed.labels),
      spacing: trimmed(Math.abs(printed.spacingMm)),
      halfMarks: printed.halfMarks,
      later: printed.spacingMm < 0 ? 'less' : 'more',
      originMm: printed.firstMm,
    }
  const { min, max, step, unit } = printed
  return {
    ...base,
    form: 'ruler',
    min: String(min),
    max: String(max),
    step: String(step),
    unit,
    later: printed.unitMm < 0 ? 'less' : 'more',
    originMm: printed.zeroMm,
    unitFactor: Math.abs(printed.unitMm) / unitMm(unit),
  }
}

/** Lengths of cranks as they are typed; marks called otherwise than by their length stay as they are. */
function cranksDraft(base: AxisDraft, scale: Scale): AxisDraft {
  const positions = positionsOf(scale)
  return positions.every(({ label, mm }) => Number(label) === mm)
    ? { ...base, form: 'labels', labels: positions.map(({ label }) => label).join(' ') }
    : { ...base, form: 'irregular', uneven: scale }
}

/** The direction of the later marks of an axis, as a question. */
export function waysOf(axis: AxisName): Readonly<Record<'more' | 'less', string>> {
  if (!isCommon(axis)) return { more: 'along it', less: 'against it' }
  return isSlide(axis) ? { more: 'forward', less: 'back' } : { more: 'up', less: 'down' }
}
