import { useCallback, useEffect, useRef, useState } from 'react'

/**
 * An entry shown on top of the server's state. `leftAtMs`: when it reached the server as far as this page knows, on the
 * clock of `performance.now`; null while it is on the device only.
 */
export type OwnEntry<E> = Readonly<{ id: string; entry: E; leftAtMs: number | null }>

export type OwnEntries<E> = Readonly<{
  own: readonly OwnEntry<E>[]
  /** Shows new entries at once, and marks them stored when `stored` resolves. */
  add: (entries: readonly Readonly<{ id: string; entry: E }>[], stored: Promise<unknown>) => void
  /** Shows an entry that the server reported, in place of the device's own of this id. */
  report: (id: string, entry: E) => void
  /** Drops entries that are part of a state requested from the server at `requestedAtMs` (`performance.now`). */
  settle: (requestedAtMs: number) => void
}>

/**
 * The device's entries on top of a state that the server sends: shown from the tap until a newer state has them.
 * `waiting`: entries in the outbox that are not refused, null before it is read; `refused`: ids of refused entries,
 * which are dropped. Both must be stable while their content is equal.
 */
export function useOwnEntries<E>(
  waiting: readonly Readonly<{ id: string; entry: E }>[] | null,
  refused: ReadonlySet<string>,
): OwnEntries<E> {
  const [own, setOwn] = useState<readonly OwnEntry<E>[]>([])
  /** Ids that are, or were, in the outbox: one that is there no more has reached the server. */
  const stored = useRef(new Set<string>())
  const inOutbox = useRef<ReadonlySet<string>>(new Set())

  useEffect(() => {
    if (waiting === null) return
    inOutbox.current = new Set(waiting.map(({ id }) => id))
    for (const { id } of waiting) stored.current.add(id)
    const now = performance.now()
    setOwn((all) => {
      const shown = new Set(all.map(({ id }) => id))
      const before = waiting.filter(({ id }) => !shown.has(id)).map((one) => ({ ...one, leftAtMs: null }))
      const next = all
        .filter(({ id }) => !refused.has(id))
        .map((one) => {
          const leftAtMs = inOutbox.current.has(one.id)
            ? null
            : (one.leftAtMs ?? (stored.current.has(one.id) ? now : null))
          return leftAtMs === one.leftAtMs ? one : { ...one, leftAtMs }
        })
      const isSame = before.length === 0 && next.length === all.length && next.every((one, i) => one === all[i])
      return isSame ? all : [...before, ...next]
    })
  }, [waiting, refused])

  const add = useCallback<OwnEntries<E>['add']>((entries, whenStored) => {
    setOwn((all) => [...all, ...entries.map((one) => ({ ...one, leftAtMs: null }))])
    const ids = new Set(entries.map(({ id }) => id))
    void whenStored.then(() => {
      for (const id of ids) stored.current.add(id)
      // One that the outbox does not list yet may be delivered already: a state requested from now on may have it.
      const now = performance.now()
      const isDelivered = ({ id }: OwnEntry<E>) => ids.has(id) && !inOutbox.current.has(id)
      setOwn((all) => all.map((one) => (isDelivered(one) ? { ...one, leftAtMs: one.leftAtMs ?? now } : one)))
    })
  }, [])
  const report = useCallback<OwnEntries<E>['report']>((id, entry) => {
    const now = performance.now()
    setOwn((all) =>
      all.some((one) => one.id === id)
        ? all.map((one) => (one.id === id ? { ...one, entry } : one))
        : [...all, { id, entry, leftAtMs: now }],
    )
  }, [])
  const settle = useCallback((requestedAtMs: number) => {
    const isPart = ({ id, leftAtMs }: OwnEntry<E>) =>
      leftAtMs !== null && leftAtMs < requestedAtMs && !inOutbox.current.has(id)
    setOwn((all) => (all.some(isPart) ? all.filter((one) => !isPart(one)) : all))
  }, [])
  return { own, add, report, settle }
}
