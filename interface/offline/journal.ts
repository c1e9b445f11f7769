import type { NewEntry, OutboxStore } from './store'

/** The part of `localStorage` that is used here. */
export type JournalStorage = Pick<Storage, 'length' | 'key' | 'getItem' | 'setItem' | 'removeItem'>

/**
 * What was tapped, written down at once and struck out when the store has it: IndexedDB answers only some milliseconds
 * later, and a page may be closed in between. Storage that is full or closed is no obstacle; then there is no journal.
 */
export type Journal = Readonly<{
  /** Writes entries down before anything is waited for; the answer strikes them out. */
  write: (added: readonly NewEntry[]) => () => void
  /** What pages that are gone had written down and not struck out, oldest first, with what strikes it out. */
  leftBehind: () => readonly Readonly<{ page: string; added: readonly NewEntry[]; strike: () => void }>[]
}>

const PREFIX = 'yielding-saddle-journal '

export function createJournal(
  storage: JournalStorage | undefined,
  page: string,
  now: () => number = Date.now,
): Journal {
  let count = 0
  const strike = (key: string) => ignoringErrors(() => storage?.removeItem(key))
  return {
    write: (added) => {
      count += 1
      const key = `${PREFIX}${String(now()).padStart(15, '0')} ${String(count).padStart(6, '0')} ${page}`
      ignoringErrors(() => storage?.setItem(key, JSON.stringify(added)))
      return () => strike(key)
    },
    leftBehind: () =>
      keysOf(storage)
        .sort()
        .flatMap((key) => {
          const by = key.split(' ').at(-1)!
          const added =
            by === page
              ? undefined
              : ignoringErrors(() => JSON.parse(storage?.getItem(key) ?? 'null') as NewEntry[] | null)
          return Array.isArray(added) ? [{ page: by, added, strike: () => strike(key) }] : []
        }),
  }
}

const keysOf = (storage: JournalStorage | undefined): string[] =>
  ignoringErrors(() =>
    Array.from({ length: storage?.length ?? 0 }, (_, i) => storage!.key(i) ?? '').filter((key) =>
      key.startsWith(PREFIX),
    ),
  ) ?? []

/**
 * Puts into the store what pages that are gone wrote down without it having arrived. `gone` runs its work only when a
 * page no longer lives, so that nobody's tap is taken out of the hands of a page that is just putting it away.
 */
export async function recover(
  journal: Journal,
  store: OutboxStore,
  gone: (page: string, work: () => Promise<void>) => Promise<void>,
): Promise<void> {
  for (const { page, added, strike } of journal.leftBehind()) {
    await gone(page, async () => {
      const here = new Set((await store.all()).map((e) => e.entry.id))
      const missing = added.filter(({ entry }) => !here.has(entry.id))
      if (missing.length > 0) await store.add(missing)
      const ids = new Set(added.map(({ entry }) => entry.id))
      // What is in memory alone, for want of room or of a key, stays written down as well.
      if ((await store.all()).every((one) => !ids.has(one.entry.id) || store.lasts(one))) strike()
    })
  }
}

function ignoringErrors<T>(work: () => T): T | undefined {
  try {
    return work()
  } catch {
    return undefined
  }
}
