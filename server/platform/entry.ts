import type { Label, Marks } from '../../core/base/conventions'
import type { Evidence } from '../../core/riders/evidence/registry'
import type { Purpose } from '../../core/setups/register/entry'
import type { ClassEntry } from '../../core/classes/watch/classState'

/**
 * An entry of a device for the server: something seen, done or saved. `id` is made on the device and belongs to this
 * one content, so that a retry is harmless; `author` is who tapped, by account, and nobody else's session may send it.
 * `madeAtMs` is the device's clock, milliseconds since 1970; `sentAtMs` the same clock when it was sent,
 * by which a clock that runs wrong is set right.
 */
export type OutboxEntry = Readonly<{ id: string; author: string; madeAtMs: number; sentAtMs?: number }> &
  /** `agrees`: the rider agrees to notes with this answer about health. */
  (
    | Readonly<{ op: 'appendEvidence'; setupId: string; row: Evidence; agrees?: boolean }>
    | Readonly<{ op: 'withdrawEvidence'; setupId: string; rowId: string }>
    | Readonly<{
        op: 'finishSetup'
        setupId: string
        marks: Marks
        purpose?: Purpose
        starter?: Readonly<{ to: Label; afterRides: number }>
      }>
    | ClassEntry
  )

export type OutboxOp = OutboxEntry['op']
export type EntryOf<Op extends OutboxOp> = Extract<OutboxEntry, { op: Op }>
