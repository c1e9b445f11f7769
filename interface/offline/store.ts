import type { Dexie, Table } from 'dexie'
import type { OutboxEntry } from '@/server/platform/entry'
import { createLock, fetchKeyOf, type EntryLock, type EntryRow, type KeyStorage } from './entryLock'

export type EntryState = 'waiting' | 'sending' | 'refused' | 'signedOut'

/** An entry on this device: `queue` defines its order (a set-up, a class), `say` is the sentence of a refusal. */
export type StoredEntry = Readonly<{
  seq: number
  queue: string
  state: EntryState
  attempts: number
  say: string
  code: string
  entry: OutboxEntry
}>
export type NewEntry = Readonly<{ queue: string; entry: OutboxEntry }>
/** What is on the device: entries of this author, and the authors of rows that cannot be opened now, one each. */
export type Contents = Readonly<{ entries: StoredEntry[]; locked: readonly string[] }>

/**
 * Store of entries until the server has them, locked with the key of their author. Shared by all tabs of a device;
 * `watch` reports every change in any of them.
 */
export type OutboxStore = Readonly<{
  all: () => Promise<StoredEntry[]>
  /** The authors of rows that cannot be opened now, one each. */
  locked: () => Promise<readonly string[]>
  /** The earliest entry of an author in one of some states that can be opened, leaving out the queues `except`. */
  first: (
    author: string,
    states: readonly EntryState[],
    except?: ReadonlySet<string>,
  ) => Promise<StoredEntry | undefined>
  /** Sequence numbers of an author's entries in one of some states. */
  seqs: (author: string, states: readonly EntryState[]) => Promise<number[]>
  add: (added: readonly NewEntry[]) => Promise<void>
  change: (seqs: readonly number[], to: Partial<Omit<StoredEntry, 'seq' | 'entry'>>) => Promise<void>
  remove: (seqs: readonly number[]) => Promise<void>
  watch: (listener: (contents: Contents) => void) => () => void
  /** Whether the author's rows can be opened and locked. */
  hasKey: () => Promise<boolean>
  /** Removes the key from the device: what is stored stays, and opens when its author has signed in again. */
  forgetKey: () => Promise<void>
  /** Removes the author's rows that cannot be opened. */
  removeLocked: () => Promise<void>
  /** Whether an entry outlives the page: false where this device's storage is full or broken. */
  lasts: (entry: StoredEntry) => boolean
}>

type DatabaseRow = Omit<StoredEntry, 'seq' | 'entry'> & EntryRow & { seq?: number }
const FRESH = Object.freeze({ state: 'waiting', attempts: 0, say: '', code: '' } as const)

/**
 * The store of one author's page in IndexedDB; where that cannot be opened or written, or there is no key, one that
 * lives as long as the page.
 */
export async function openStore(
  author: string,
  name = 'yielding-saddle',
  fetchKey = () => fetchKeyOf(author),
): Promise<OutboxStore> {
  try {
    // Fetched once the page answers to hands: nothing of it is needed to draw.
    const { default: Dexie } = await import('dexie')
    const db = new Dexie(name)
    db.version(1).stores({ entries: '++seq, &entry.id' })
    db.version(2).stores({ entries: `++seq, &entry.id, ${BY_AUTHOR_AND_STATE}` })
    db.version(3).stores({ entries: `++seq, &entry.id, ${BY_AUTHOR_AND_STATE}`, keys: 'author' })
    await db.open()
    const entries = db.table<DatabaseRow, number>('entries')
    const keys = db.table<StoredKey, string>('keys')
    const lock = createLock(author, keyStorage(keys), fetchKey)
    void lockPlainRows(entries, lock).catch(() => undefined)
    return withFallback(indexedStore(Dexie, { entries, keys }, lock), memoryStore())
  } catch {
    return memoryStore()
  }
}

type StoredKey = Readonly<{ author: string; key: CryptoKey }>

const keyStorage = (keys: Table<StoredKey, string>): KeyStorage => ({
  get: async (author) => (await keys.get(author))?.key,
  put: async (author, key) => void (await keys.put({ author, key })),
  remove: (author) => keys.delete(author),
  removeOthers: async (author) => void (await keys.where('author').notEqual(author).delete()),
})

/** Locks the author's rows of an earlier version, which stored entries as they were. */
async function lockPlainRows(entries: Table<DatabaseRow, number>, lock: EntryLock): Promise<void> {
  const own = await entries.filter((row) => row.entry.author === lock.author && !row.locked).toArray()
  for (const { seq, entry } of own) {
    const row = await lock.seal(entry as OutboxEntry)
    await entries
      .where('seq')
      .equals(seq!)
      .modify({ ...row })
  }
}

const BY_AUTHOR_AND_STATE = '[entry.author+state]'
const EMPTY: ReadonlySet<string> = new Set()

/** Opens rows; an entry never changes, so each is decrypted once and has one identity. */
function rowOpener(lock: EntryLock) {
  const opened = new Map<string, OutboxEntry>()
  return async (row: DatabaseRow): Promise<StoredEntry | null> => {
    const entry = opened.get(row.entry.id) ?? (await lock.open(row))
    if (!entry) return null
    opened.set(entry.id, entry)
    const { seq, queue, state, attempts, say, code } = row
    return { seq: seq!, queue, state, attempts, say, code, entry }
  }
}

function indexedStore(
  { liveQuery }: typeof Dexie,
  { entries, keys }: Readonly<{ entries: Table<DatabaseRow, number>; keys: Table<StoredKey, string> }>,
  lock: EntryLock,
): OutboxStore {
  const openRow = rowOpener(lock)
  let adding: Promise<void> = Promise.resolve()
  const rows = () => entries.orderBy('seq').toArray()
  const contentsOf = async (found: readonly DatabaseRow[]): Promise<Contents> => {
    const opened = await Promise.all(found.map(openRow))
    return {
      entries: opened.filter((one) => one !== null),
      locked: found.flatMap(({ entry }, i) => (opened[i] ? [] : [entry.author])),
    }
  }
  const inStates = (author: string, states: readonly EntryState[]) =>
    states.map((state) => entries.where(BY_AUTHOR_AND_STATE).equals([author, state]))
  return {
    all: async () => (await contentsOf(await rows())).entries,
    locked: async () => (await contentsOf(await rows())).locked,
    first: async (author, states, except = EMPTY) => {
      const closed = new Set<number>()
      for (;;) {
        // Entries of one author in one state come in the order of `seq`: only the first of each state is read.
        const found = await Promise.all(
          inStates(author, states).map((all) =>
            all.filter((row) => !except.has(row.queue) && !closed.has(row.seq!)).first(),
          ),
        )
        const next = earliest(found)
        if (!next) return undefined
        const opened = await openRow(next)
        if (opened) return opened
        if (!(await lock.hasKey())) return undefined
        closed.add(next.seq!)
      }
    },
    seqs: async (author, states) =>
      (await Promise.all(inStates(author, states).map((all) => all.primaryKeys()))).flat(),
    add: (added) => {
      const sealing = Promise.all(
        added.map(async ({ queue, entry }) => ({ ...FRESH, queue, ...(await lock.seal(entry)) })),
      )
      // Sealing takes a moment: entries are numbered in the order they came.
      const before = adding.catch(() => undefined)
      adding = Promise.all([sealing, before]).then(async ([rows]) => void (await entries.bulkAdd(rows)))
      return adding
    },
    change: async (seqs, to) =>
      void (await entries
        .where('seq')
        .anyOf([...seqs])
        .modify(to)),
    remove: (seqs) => entries.bulkDelete([...seqs]),
    watch: (listener) => {
      let latest = 0
      // A key that comes or goes changes what can be opened.
      const subscription = liveQuery(() => keys.count().then(rows)).subscribe((found) => {
        const turn = ++latest
        // Opening takes a moment: an older list must not overtake a newer one.
        void contentsOf(found).then((contents) => turn === latest && listener(contents))
      })
      return () => {
        latest = Infinity
        subscription.unsubscribe()
      }
    },
    lasts: () => true,
    hasKey: () => lock.hasKey(),
    forgetKey: () => lock.forget(),
    removeLocked: async () => {
      const own = (await rows()).filter(({ entry }) => entry.author === lock.author)
      const opened = await Promise.all(own.map(openRow))
      await entries.bulkDelete(own.flatMap(({ seq }, i) => (opened[i] ? [] : [seq!])))
    },
  }
}

const earliest = (found: readonly (DatabaseRow | undefined)[]): DatabaseRow | undefined =>
  found.reduce((least, one) => (one && (!least || one.seq! < least.seq!) ? one : least), undefined)

/** Sequence numbers from here on are of entries in memory alone, far behind those of the device's own. */
export const IN_MEMORY = 2 ** 40

/**
 * Writes to the device; entries that its storage rejects (full, removed) stay in memory, and are sent like the rest.
 */
export function withFallback(device: OutboxStore, memory: OutboxStore): OutboxStore {
  return {
    all: async () => [...(await device.all().catch(() => [])), ...(await memory.all())],
    locked: () => device.locked().catch(() => []),
    first: async (...of) => (await device.first(...of).catch(() => undefined)) ?? (await memory.first(...of)),
    seqs: async (...of) => [...(await device.seqs(...of).catch(() => [])), ...(await memory.seqs(...of))],
    add: (added) => device.add(added).catch(() => memory.add(added)),
    change: async (seqs, to) => void (await Promise.all([memory.change(seqs, to), device.change(onDevice(seqs), to)])),
    remove: async (seqs) => void (await Promise.all([memory.remove(seqs), device.remove(onDevice(seqs))])),
    watch: (listener) => {
      // Reported only after a read of the storage: an empty list from memory alone would read as "everything was sent".
      let onDisk: Contents | null = null
      let inMemory: StoredEntry[] = []
      const report = () => onDisk && listener({ ...onDisk, entries: [...onDisk.entries, ...inMemory] })
      const stopMemory = memory.watch(({ entries }) => {
        inMemory = entries
        report()
      })
      const stopDevice = device.watch((contents) => {
        onDisk = contents
        report()
      })
      return () => {
        stopMemory()
        stopDevice()
      }
    },
    lasts: ({ seq }) => seq < IN_MEMORY,
    hasKey: () => device.hasKey(),
    forgetKey: () => device.forgetKey().catch(() => undefined),
    removeLocked: () => device.removeLocked(),
  }
}

const onDevice = (seqs: readonly number[]): number[] => seqs.filter((seq) => seq < IN_MEMORY)

export function memoryStore(): OutboxStore {
  let entries: StoredEntry[] = []
  let last = IN_MEMORY
  const watchers = new Set<(contents: Contents) => void>()
  const become = (next: StoredEntry[]) => {
    entries = next
    watchers.forEach((listener) => listener({ entries, locked: [] }))
  }
  const inStates = (author: string, states: readonly EntryState[]) =>
    entries.filter((one) => one.entry.author === author && states.includes(one.state))
  return {
    all: async () => entries,
    locked: async () => [],
    first: async (author, states, except = EMPTY) => inStates(author, states).find(({ queue }) => !except.has(queue)),
    seqs: async (author, states) => inStates(author, states).map(({ seq }) => seq),
    add: async (added) => become([...entries, ...added.map((one) => ({ ...FRESH, ...one, seq: ++last }))]),
    change: async (seqs, to) => become(entries.map((e) => (seqs.includes(e.seq) ? { ...e, ...to } : e))),
    remove: async (seqs) => become(entries.filter((e) => !seqs.includes(e.seq))),
    watch: (listener) => {
      watchers.add(listener)
      listener({ entries, locked: [] })
      return () => watchers.delete(listener)
    },
    lasts: () => false,
    hasKey: async () => true,
    forgetKey: async () => undefined,
    removeLocked: async () => undefined,
  }
}
