import { AXES, isCommon, type AxisName } from '@/core/base/adjustments'
import type { Axis } from '@/core/bikes/bike/bike'
import { AXIS_TITLE } from '@/core/messages/words/phrases'
import { FIELD_REASON } from '@/core/messages/bikes/typeFields'
import { documentIssues, type BikeTypeDocument } from '@/core/operations/typeFile'
import { parseLabels, scaleOf, unitMm, type PrintedScale } from '@/core/bikes/scale/printed'
import { defined } from '@/core/base/schema'
import type { Scale } from '@/core/bikes/scale/scale'
import { parseLength, type UnitSystem } from '@/core/base/length'
import { parseQuantity } from '@/core/base/quantity'
import type { TypeDraft } from './typeDraft'

export type DraftIssue = Readonly<{ field: string; reason: string }>
export type ParsedDraft = Readonly<{ document: BikeTypeDocument | null; issues: readonly DraftIssue[] }>

/** The adjustments of the type a draft describes, in the order of `AXES`. */
export const axesIn = ({ seatSlides, barSlides, further }: TypeDraft): AxisName[] =>
  AXES.filter((name) => {
    if (name === 'seatSlide') return seatSlides
    if (name === 'barSlide') return barSlides
    return isCommon(name) || further.includes(name)
  })

/** Reads a draft: the type it describes, or null, and everything that is wrong, by field. */
export function parseDraft(draft: TypeDraft, shown: UnitSystem): ParsedDraft {
  const issues: DraftIssue[] = []
  const refuse = (field: string, reason: string) => {
    issues.push({ field, reason })
    return 0
  }
  const lengthOf = (field: string, typed: string, title: string): number => {
    const read = parseLength(typed, shown === 'imperial' ? 'in' : 'mm')
    if (read.outcome === 'read') return read.mm
    return refuse(field, read.reason === 'empty' ? FIELD_REASON.missing(title) : FIELD_REASON.notALength(title, typed))
  }
  const length = (field: keyof TypeDraft, title: string): number => lengthOf(field, String(draft[field]), title)
  const surface = (field: 'cageSurface' | 'cleatSurface', title: string) =>
    draft[field].trim() === '' ? undefined : length(field, title)
  const number = (field: string, typed: string, title: string): number => {
    return parseQuantity(typed, '°') ?? refuse(field, FIELD_REASON.notANumber(title, typed))
  }
  if (draft.name.trim() === '') refuse('name', FIELD_REASON.missing('Name'))
  const noseAheadMm = length('noseAhead', 'Nose ahead')
  const saddleHeight = length('saddleHeight', 'Saddle height')
  const seatX = -(length('setback', 'Setback') + noseAheadMm)
  if (Math.abs(seatX) >= saddleHeight && saddleHeight > 0) refuse('setback', FIELD_REASON.behindSaddleHeight())
  const seatOrigin = { xMm: seatX, yMm: Math.sqrt(Math.max(0, saddleHeight ** 2 - seatX ** 2)) }
  const gripOrigin = { xMm: seatX + length('reach', 'Reach'), yMm: length('stack', 'Stack') }
  const leans = {
    seatHeight: 90 + number('seatLean', draft.seatLean, 'Seat post'),
    barHeight: 90 - number('barLean', draft.barLean, 'Bar post'),
  }
  const directionOf = (name: AxisName): number => {
    if (name === 'seatHeight' || name === 'barHeight') return leans[name]
    if (isCommon(name)) return draft.axes[name].slideDeg
    return number(`${name}.direction`, draft.axes[name].direction, `${AXIS_TITLE[name]}, direction`)
  }
  const axis = (name: AxisName): Axis => {
    const printedName = draft.axes[name].printedName.trim()
    return {
      directionDeg: directionOf(name),
      scale: scale(name),
      ...(printedName !== '' && { name: printedName }),
      ...(draft.axes[name].riderOn && { riderOn: true as const }),
    }
  }

  function scale(name: AxisName): Scale {
    const d = draft.axes[name]
    const title = AXIS_TITLE[name]
    if (d.form === 'irregular' && d.uneven) return d.uneven
    const way = d.later === 'less' ? -1 : 1
    if (d.form === 'ruler') {
      const [min, max, step] = [
        number(`${name}.min`, d.min, `${title}, from`),
        number(`${name}.max`, d.max, `${title}, to`),
        number(`${name}.step`, d.step, `${title}, step`),
      ]
      if (step <= 0) refuse(`${name}.step`, FIELD_REASON.zeroStep(title))
      return scaleOf({
        form: 'ruler',
        min,
        max,
        step: Math.max(step, 1e-3),
        unit: d.unit,
        unitMm: way * d.unitFactor * unitMm(d.unit),
        zeroMm: d.originMm === 'middle' ? 0 : d.originMm,
      })
    }
    const read = parseLabels(d.labels)
    if (read.outcome === 'refused') refuse(`${name}.labels`, FIELD_REASON.labels(title, read))
    if (name === 'crankLength' && read.outcome === 'read') {
      const unclear = read.labels.find((label) => !(Number(label) > 0))
      if (unclear !== undefined) refuse(`${name}.labels`, FIELD_REASON.notALength(title, unclear))
      return { marks: read.labels.map((label) => ({ label, mm: Number(label) || 0 })), halfMarks: false }
    }
    const spacingMm = number(`${name}.spacing`, d.spacing, `${title}, apart`)
    if (spacingMm <= 0) refuse(`${name}.spacing`, FIELD_REASON.notApart(title))
    const labels = read.outcome === 'read' ? read.labels : ['1']
    const apart = way * Math.max(spacingMm, 0.1)
    const firstMm = d.originMm === 'middle' ? -apart * Math.floor(labels.length / 2) : d.originMm
    const printed: PrintedScale = { form: 'labels', labels, spacingMm: apart, firstMm, halfMarks: d.halfMarks }
    return scaleOf(printed)
  }

  const axes = {
    seatHeight: axis('seatHeight'),
    ...(draft.seatSlides && { seatSlide: axis('seatSlide') }),
    barHeight: axis('barHeight'),
    ...(draft.barSlides && { barSlide: axis('barSlide') }),
    ...Object.fromEntries(draft.further.map((name) => [name, axis(name)])),
  }
  const [cage, cleat] = [surface('cageSurface', 'Cage side'), surface('cleatSurface', 'Cleat side')]
  const grips = draft.grips.map(({ name, ahead, above }, i) => {
    if (name.trim() === '') refuse(`grips.${i}.name`, FIELD_REASON.missing('Hand position'))
    else if (draft.grips.findIndex((other) => other.name.trim() === name.trim()) < i)
      refuse(`grips.${i}.name`, FIELD_REASON.twice('Hand position', name.trim()))
    return {
      name: name.trim(),
      aheadMm: lengthOf(`grips.${i}.ahead`, ahead, `${name || 'Hand position'}, ahead`),
      aboveMm: lengthOf(`grips.${i}.above`, above, `${name || 'Hand position'}, above`),
    }
  })
  const names = axesIn(draft)
  const order = draft.order.filter((name) => names.includes(name))
  const document: BikeTypeDocument = {
    bikeType: {
      name: draft.name.trim(),
      crankMm: length('crank', 'Crank'),
      pedalSurfaceMm: length('pedalSurface', 'Pedal'),
      axleHeightMm: length('axleHeight', 'Crank axle'),
      saddle: { noseAheadMm, lengthMm: length('saddleLength', 'Saddle length'), shape: draft.shape },
      seatOrigin,
      gripOrigin,
      axes,
      ...(order.length > 0 && { order }),
      forearmGaugeValid: draft.forearmGaugeValid,
      ...((cage ?? cleat) !== undefined && { pedalSurfacesMm: defined({ cage, cleat }) }),
      ...(grips.length > 0 && { grips }),
    },
    equipment: {
      ...draft.equipment,
      closing: Object.fromEntries(names.map((name) => [name, draft.axes[name].closing])),
      pedalSpacingMm: length('pedalSpacing', 'Between the cranks'),
    },
  }
  if (issues.length > 0) return { document: null, issues: issues }
  const found = documentIssues(document).map((issue) => ({ field: issue.pointer, reason: FIELD_REASON.issue(issue) }))
  return { document: found.length > 0 ? null : document, issues: found }
}
