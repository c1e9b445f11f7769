import type { AxisName } from '../conventions'
import type { School } from '../school/school'

/** How a part is closed; every one is closed and shaken after a change. */
export const CLOSINGS = ['pin', 'knob', 'lever'] as const
export type Closing = (typeof CLOSINGS)[number]
export const PEDAL_SIDES = ['cage', 'cleat'] as const
export const STOPS = ['push', 'lever', 'none'] as const

/** What stands on the type's sheet beside its geometry. Nothing here enters the arithmetic. */
export type TypeSheet = Readonly<{
  closing: Readonly<Partial<Record<AxisName, Closing>>>
  pedalSides: readonly (typeof PEDAL_SIDES)[number][]
  /** Between the outer faces of the cranks, mm. */
  pedalSpacingMm: number
  /** How the flywheel is stopped: pushing the resistance knob, a lever, or nothing but the legs. */
  stop: (typeof STOPS)[number]
  /** Start landmarks that are valid on this type. */
  landmarks: readonly School['startLandmark'][]
}>

export const USUAL_SHEET: TypeSheet = Object.freeze({
  closing: { seatHeight: 'pin', seatSlide: 'knob', barHeight: 'pin', barSlide: 'knob' },
  pedalSides: ['cage', 'cleat'],
  pedalSpacingMm: 165,
  stop: 'push',
  landmarks: ['hipCrest', 'frontHipBone', 'between'],
} as const)

/** Name of the file format in which types are handed on. */
export const TYPE_FILE_FORMAT = 'yielding-saddle/bike-types'
