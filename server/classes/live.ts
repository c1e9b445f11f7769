import type { MadeEntry } from '../../core/watch/classState'

/** What is told of a class: an entry somebody wrote, or with null that who sits where has changed. */
export type ClassEvent = MadeEntry | null
type Listener = (news: ClassEvent) => void
/** Who is told, by class. One map a process, whichever bundle asks. */
type Listeners = Map<string, Set<Listener>>
const KEY = Symbol.for('yielding-saddle.live')
const listeners = (): Listeners => {
  const shared = globalThis as unknown as Record<symbol, Listeners | undefined>
  return (shared[KEY] ??= new Map())
}

/** Calls `tell` whenever something of the class changes in this process, until the returned function is called. */
export function subscribeToClass(classId: string, tell: Listener): () => void {
  const all = listeners()
  const own = all.get(classId) ?? new Set()
  all.set(classId, own.add(tell))
  return () => {
    own.delete(tell)
    if (own.size === 0 && all.get(classId) === own) all.delete(classId)
  }
}

/** Tells whoever watches the class. */
export const publishClassEvent = (classId: string, news: ClassEvent): void =>
  listeners()
    .get(classId)
    ?.forEach((tell) => tell(news))
