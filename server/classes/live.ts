import type { MadeEntry } from '../../core/classes/watch/classState'

/** An event of a class: a new entry, or null where the places changed. */
export type ClassEvent = MadeEntry | null
type Listener = (news: ClassEvent) => void
/** Subscribers by class. One map a process, for all bundles. */
type Listeners = Map<string, Set<Listener>>
const KEY = Symbol.for('yielding-saddle.live')
const listeners = (): Listeners => {
  const shared = globalThis as unknown as Record<symbol, Listeners | undefined>
  return (shared[KEY] ??= new Map())
}

/** Subscribes to the events of a class in this process; the returned function unsubscribes. */
export function subscribeToClass(classId: string, listener: Listener): () => void {
  const all = listeners()
  const own = all.get(classId) ?? new Set()
  all.set(classId, own.add(listener))
  return () => {
    own.delete(listener)
    if (own.size === 0 && all.get(classId) === own) all.delete(classId)
  }
}

/** Publishes an event to the subscribers of the class. */
export const publishClassEvent = (classId: string, news: ClassEvent): void =>
  listeners()
    .get(classId)
    ?.forEach((listener) => listener(news))
