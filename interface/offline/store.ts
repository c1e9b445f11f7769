import type { Dexie, Table } from 'dexie'
import type { OutboxEntry } from '@/server/platform/entry'

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

/**
 * Store of entries until the server has them. Shared by all tabs of a device; `watch` reports every change in any of
 * them.
 */
export type OutboxStore = Readonly<{
  all: () => Promise<StoredEntry[]>
  /** The earliest entry of an author in one of some states, leaving out the queues `except`. */
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
  watch: (listener: (entries: StoredEntry[]) => void) => () => void
  /** Whether an entry outlives the page: false where this device's storage is full or broken. */
  lasts: (entry: StoredEntry) => boolean
}>

type DatabaseRow = Omit<StoredEntry, 'seq'> & { seq?: number }
const fresh = ({ queue, entry }: NewEntry): DatabaseRow => ({
  queue,
  entry,
  state: 'waiting',
  attempts: 0,
  say: '',
  code: '',
})

/** The store in IndexedDB; where that cannot be opened or written, one that lives as long as the page. */
export async function openStore(name = 'yielding-saddle'): Promise<OutboxStore> {
  try {
    // Fetched once the page answers to hands: nothing of it is needed to draw.
    const { default: Dexie } = await import('dexie')
    const db = new Dexie(name)
    db.version(1).stores({ entries: '++seq, &entry.id' })
    db.version(2).stores({ entries: `++seq, &entry.id, ${BY_AUTHOR_AND_STATE}` })
    await db.open()
    return withFallback(indexedStore(Dexie, db.table<DatabaseRow, number>('entries')), memoryStore())
  } catch {
    return memoryStore()
  }
}

const BY_AUTHOR_AND_STATE = '[entry.author+state]'
const EMPTY: ReadonlySet<string> = new Set()

function indexedStore({ liveQuery }: typeof Dexie, entries: Table<DatabaseRow, number>): OutboxStore {
  const all = async () => (await entries.orderBy('seq').toArray()) as StoredEntry[]
  const inStates = (author: string, states: readonly EntryState[]) =>
    states.map((state) => entries.where(BY_AUTHOR_AND_STATE).equals([author, state]))
  return {
    all,
    // Entries of one author in one state come in the order of `seq`: only the first of each state is read.
    first: async (author, states, except = EMPTY) => {
      const found = await Promise.all(
        inStates(author, states).map((rows) => rows.filter(({ queue }) => !except.has(queue)).first()),
      )
      return earliest(found as (StoredEntry | undefined)[])
    },
    seqs: async (author, states) =>
      (await Promise.all(inStates(author, states).map((rows) => rows.primaryKeys()))).flat(),
    add: async (added) => void (await entries.bulkAdd(added.map(fresh))),
    change: async (seqs, to) =>
      void (await entries
        .where('seq')
        .anyOf([...seqs])
        .modify(to)),
    remove: (seqs) => entries.bulkDelete([...seqs]),
    watch: (listener) => {
      const subscription = liveQuery(all).subscribe(listener)
      return () => subscription.unsubscribe()
    },
    lasts: () => true,
  }
}

const earliest = (found: readonly (StoredEntry | undefined)[]): StoredEntry | undefined =>
  found.reduce((least, one) => (one && (!least || one.seq < least.seq) ? one : least), undefined)

/** Sequence numbers of what is only in memory lie far behind those of the device's own. */
const IN_MEMORY = 2 ** 40

/**
 * Writes to the device; entries that its storage rejects (full, removed) stay in memory, and are sent like the rest.
 */
export function withFallback(device: OutboxStore, memory: OutboxStore): OutboxStore {
  return {
    all: async () => [...(await device.all().catch(() => [])), ...(await memory.all())],
    first: async (...of) => (await device.first(...of).catch(() => undefined)) ?? (await memory.first(...of)),
    seqs: async (...of) => [...(await device.seqs(...of).catch(() => [])), ...(await memory.seqs(...of))],
    add: (added) => device.add(added).catch(() => memory.add(added)),
    change: async (seqs, to) => void (await Promise.all([memory.change(seqs, to), device.change(onDevice(seqs), to)])),
    remove: async (seqs) => void (await Promise.all([memory.remove(seqs), device.remove(onDevice(seqs))])),
    watch: (listener) => {
      // Reported only after a read of the storage: an empty list from memory alone would read as "everything was sent".
      let onDisk: StoredEntry[] | null = null
      let inMemory: StoredEntry[] = []
      const stopMemory = memory.watch((entries) => {
        inMemory = entries
        if (onDisk) listener([...onDisk, ...inMemory])
      })
      const stopDevice = device.watch((entries) => {
        onDisk = entries
        listener([...onDisk, ...inMemory])
      })
      return () => {
        stopMemory()
        stopDevice()
      }
    },
    lasts: ({ seq }) => seq < IN_MEMORY,
  }
}

const onDevice = (seqs: readonly number[]): number[] => seqs.filter((seq) => seq < IN_MEMORY)

export function memoryStore(): OutboxStore {
  let entries: StoredEntry[] = []
  let last = IN_MEMORY
  const watchers = new Set<(entries: StoredEntry[]) => void>()
  const become = (next: StoredEntry[]) => {
    entries = next
    watchers.forEach((listener) => listener(entries))
  }
  const inStates = (author: string, states: readonly EntryState[]) =>
    entries.filter((one) => one.entry.author === author && states.includes(one.state))
  return {
    all: async () => entries,
    first: async (author, states, except = EMPTY) => inStates(author, states).find(({ queue }) => !except.has(queue)),
    seqs: async (author, states) => inStates(author, states).map(({ seq }) => seq),
    add: async (added) => become([...entries, ...added.map((one) => ({ ...fresh(one), seq: ++last }))]),
    change: async (seqs, to) => become(entries.map((e) => (seqs.includes(e.seq) ? { ...e, ...to } : e))),
    remove: async (seqs) => become(entries.filter((e) => !seqs.includes(e.seq))),
    watch: (listener) => {
      watchers.add(listener)
      listener(entries)
      return () => watchers.delete(listener)
    },
    lasts: () => false,
  }
}
