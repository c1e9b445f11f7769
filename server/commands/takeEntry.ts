import type { Scope } from '../platform/accounts/scope'
import type { CommandOutcome } from './defineCommand'
import { refused } from './defineCommand'
import { COMMANDS } from './registry'
import { runCommand } from './runCommand'
import type { Database } from '../platform/db/connection'
import type { OutboxEntry } from '../platform/entry'

/** The name of the command that an entry's `op` carries. */
const NAME_OF = Object.freeze(
  Object.fromEntries(Object.values(COMMANDS).flatMap(({ name, offline }) => (offline ? [[offline, name]] : []))),
)

/**
 * A device's clock may be wrong, and a device may lie in a bag for days: times are clamped to this span before now.
 */
const MAX_ENTRY_AGE_MS = 7 * 86_400_000
/** Clocks that differ by less are the same: the network takes its time. */
const MAX_CLOCK_SKEW_MS = 5000

/** Runs the command of one outbox entry; sent again it changes nothing. */
export async function takeEntry(db: Database, scope: Scope, entry: OutboxEntry, now: Date): Promise<CommandOutcome> {
  const { id, author: _, madeAtMs, sentAtMs, op, ...input } = entry
  if (!Object.hasOwn(NAME_OF, op)) return refused({ code: 'malformed' })
  const observedAt = observedAtOf({ madeAtMs, sentAtMs }, now)
  return runCommand(db, scope, { name: NAME_OF[op], id, input, observedAt }, now)
}

/** When it happened: the device's clock, corrected by its reading when it sent, clamped to the possible span. */
function observedAtOf({ madeAtMs, sentAtMs }: Pick<OutboxEntry, 'madeAtMs' | 'sentAtMs'>, now: Date): Date {
  const skew = Number.isFinite(sentAtMs) ? now.getTime() - sentAtMs! : 0
  const off = Math.abs(skew) > MAX_CLOCK_SKEW_MS ? skew : 0
  const made = Number.isFinite(madeAtMs) ? madeAtMs + off : now.getTime()
  return new Date(Math.min(now.getTime(), Math.max(now.getTime() - MAX_ENTRY_AGE_MS, made)))
}
