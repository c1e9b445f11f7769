import type { BikeType } from '../bikes/bike/bike'
import { HOLES_BIKE } from './meanRider'

const marks = (labels: readonly string[], firstMm: number, apartMm: number) => ({
  marks: labels.map((label, i) => ({ label, mm: firstMm + i * apartMm })),
  halfMarks: false,
})

/** The frame lifted along the seat post's own line, A to E, 20 mm apart as the seat's holes are. */
export const FRAME_HEIGHT = Object.freeze({
  directionDeg: HOLES_BIKE.axes.seatHeight.directionDeg,
  scale: marks(['A', 'B', 'C', 'D', 'E'], 0, 20),
  name: 'Lift',
})
export const CRANK_LENGTH = Object.freeze({
  directionDeg: 0,
  scale: {
    marks: [155, 160, 165, 170].map((mm) => ({ label: String(mm), mm })),
    halfMarks: false,
  },
})

/** `HOLES_BIKE` with a frame that is lifted and a choice of cranks: six adjustments. */
export const SIX_BIKE: BikeType = {
  ...HOLES_BIKE,
  name: 'Six',
  crankMm: 170,
  axes: { ...HOLES_BIKE.axes, frameHeight: FRAME_HEIGHT, crankLength: CRANK_LENGTH },
}

const { seatSlide: _, ...withoutSlide } = HOLES_BIKE.axes
/** `HOLES_BIKE` whose saddle does not slide. */
export const NO_SLIDE_BIKE: BikeType = { ...HOLES_BIKE, name: 'Fixed', axes: withoutSlide }
