import type { Marks } from '../../base/conventions'
import type { TapeReading } from './readings'
import type { TiltReading } from '../bike/tilt'

/** What is measured on one machine. */
export type BikeReading =
  /** `resetsBaseline`: the machine has changed, earlier tapes no longer count. */
  | Readonly<{ kind: 'tape'; resetsBaseline?: boolean } & TapeReading>
  | Readonly<{ kind: 'tilt' } & TiltReading>
  /** How far the saddle's nose points off the frame's line, mm, plus to the right; before and after closing. */
  | Readonly<{ kind: 'saddleLine'; mm: number; afterClosing: boolean }>
  /**
   * Height of the saddle at some marks by the riders checked on it, mm from the axle, with its standard deviation:
   * taken by hand, in the place of tapes before it, until one is laid.
   */
  | Readonly<{ kind: 'riders'; marks: Marks; saddleHeightMm: number; sdMm: number; riders: number }>
