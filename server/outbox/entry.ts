import type { Marks } from '../../core/conventions'
import type { Evidence } from '../../core/evidence/registry'
import type { Purpose } from '../../core/register/entry'

/**
 * What a device has to tell the server: something seen, done or saved. `id` is made on the device and belongs to this
 * one content, so that a retry is harmless; `author` is who tapped, by account, and nobody else's session may send it.
 * `madeAtMs` is the device's clock, milliseconds since 1970.
 */
export type OutboxEntry = Readonly<{ id: string; author: string; madeAtMs: number }> &
  (
    | Readonly<{ op: 'appendEvidence'; setupId: string; row: Evidence }>
    | Readonly<{ op: 'withdrawEvidence'; setupId: string; rowId: string }>
    | Readonly<{ op: 'finishSetup'; setupId: string; marks: Marks; purpose?: Purpose }>
    | Readonly<{ op: 'addNote'; memberId: string; bikeId: string; sign: string; side: 'left' | 'right' | 'both' }>
    | Readonly<{ op: 'withdrawNote'; noteId: string }>
  )

export type OutboxOp = OutboxEntry['op']
export type EntryOf<Op extends OutboxOp> = Extract<OutboxEntry, { op: Op }>
