import type { TapeReading } from '../calibration/readings'
import type { TiltReading } from './tilt'

/** What is measured on one machine. */
export type BikeReading =
  | Readonly<{ kind: 'tape' } & TapeReading>
  | Readonly<{ kind: 'tilt' } & TiltReading>
  /** How far the saddle's nose points off the frame's line, mm, plus to the right; before and after closing. */
  | Readonly<{ kind: 'saddleLine'; mm: number; afterClosing: boolean }>
