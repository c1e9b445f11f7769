'use client'
import {
  createContext,
  startTransition,
  useCallback,
  useContext,
  useEffect,
  useMemo,
  useRef,
  useState,
  type ReactNode,
} from 'react'
import type { OutboxEntry } from '@/server/platform/entry'
import { drain, resume } from './drain'
import { forgetPages, useServiceWorker } from './storePage'
import { createJournal, recover, type Journal } from './journal'
import { recordDelivery } from './delivery/lastDelivery'
import { send } from './send'
import { IN_MEMORY, openStore, type Contents, type OutboxStore, type StoredEntry } from './store'

type WithoutOrigin<E> = E extends unknown ? Omit<E, 'id' | 'author' | 'madeAtMs'> : never
/** What is to be sent, without what every entry has; `id` where the caller needs to know it. */
export type DraftEntry = WithoutOrigin<OutboxEntry> & Readonly<{ id?: string }>

type Outbox = Readonly<{
  author: Readonly<{ id: string; name: string }>
  /** Everything of this author on this device; null until it was read. */
  entries: readonly StoredEntry[] | null
  /** Entries of other authors on this device, which only they can open. */
  others: number
  /** Entries of this author that cannot be opened: for the moment, or for good. */
  locked: Readonly<{ count: number; isForGood: boolean }>
  /** The last round found no network. */
  offline: boolean
  /** The studio's computer has no room to write: what was tapped waits here. */
  noRoom: boolean
  /** Some entries live only as long as this page: the device's storage is full or broken. */
  fragile: boolean
  enqueue: (queue: string, drafts: readonly DraftEntry[]) => Promise<void>
  /** Resolves once an entry that was enqueued has left the device, or was refused. */
  settled: (id: string) => Promise<'sent' | 'refused'>
  retry: (entry: StoredEntry) => Promise<void>
  discard: (entry: StoredEntry) => Promise<void>
  discardLocked: () => Promise<void>
  /** Before signing out: the key of what waits here, stored pages and snapshots leave the device. */
  forgetDevice: () => Promise<void>
  /** Sends at once instead of when the next round is due. */
  sendNow: () => void
}>

const OutboxContext = createContext<Outbox | null>(null)

export function useOutbox(): Outbox {
  const outbox = useContext(OutboxContext)
  if (!outbox) throw new Error('useOutbox outside of OutboxProvider')
  return outbox
}

/** Waits between rounds after a fault or without a network, ms; then the last again and again. */
const WAITS_MS = [1000, 2000, 4000, 8000, 15_000] as const
const LOCK = 'yielding-saddle-outbox'

/** One store per page and author, opened once; Dexie synchronizes all tabs of the device. */
const opened = new Map<string, Promise<OutboxStore>>()
function getStore(author: string): Promise<OutboxStore> {
  const store = opened.get(author) ?? openWithWhatWasLeft(author)
  opened.set(author, store)
  return store
}

async function openWithWhatWasLeft(author: string): Promise<OutboxStore> {
  const store = await openStore(author)
  await recover(getJournal(), store, ifPageClosed).catch(() => undefined)
  return store
}

let journal: Journal | undefined
function getJournal(): Journal {
  if (journal) return journal
  const page = crypto.randomUUID()
  // A lock for the life of the page, so that other pages can detect it.
  if ('locks' in navigator) void navigator.locks.request(pageLock(page), () => new Promise(() => undefined))
  return (journal = createJournal(storageOrNone(), page))
}

const pageLock = (page: string) => `yielding-saddle-page-${page}`

/** Runs the work only if that page is closed. Without locks it always runs: a tap sent twice is stored once. */
async function ifPageClosed(page: string, work: () => Promise<void>): Promise<void> {
  if (!('locks' in navigator)) return work()
  await navigator.locks.request(pageLock(page), { ifAvailable: true }, (lock) => (lock ? work() : undefined))
}

/** The device's storage, or undefined where the browser forbids it. */
export function storageOrNone(): Storage | undefined {
  try {
    return window.localStorage
  } catch {
    return undefined
  }
}

type Rounds = Readonly<{
  contents: Contents | null
  hasKey: boolean
  offline: boolean
  noRoom: boolean
  wake: () => void
}>

/** Sends what an author's device has, round after round, and reports what is left on it. */
function useRounds(author: string): Rounds {
  const [contents, setContents] = useState<Contents | null>(null)
  const [hasKey, setHasKey] = useState(false)
  const [offline, setOffline] = useState(false)
  const [noRoom, setNoRoom] = useState(false)
  const wake = useRef<() => void>(() => undefined)

  useEffect(() => {
    let gone = false
    let timer: ReturnType<typeof setTimeout> | undefined
    let running = false
    let again = false
    let failures = 0

    async function round(): Promise<void> {
      if (gone) return
      if (running) return void (again = true)
      running = true
      clearTimeout(timer)
      const store = await getStore(author)
      let some = false
      const sendCounted: typeof send = async (entry) => {
        const sent = await send(entry)
        if (sent.outcome === 'kept') {
          some = true
          recordDelivery(storageOrNone(), Date.now())
        }
        return sent
      }
      const sent = await oneAtATime(() => drain(store, author, sendCounted)).catch(() => 'later' as const)
      if (sent === 'signedOut') await store.forgetKey()
      const key = await store.hasKey()
      const ended = sent === 'empty' && !key && (await store.locked()).includes(author) ? 'later' : sent
      running = false
      if (gone) return
      setHasKey(key)
      setOffline(ended === 'noNetwork')
      setNoRoom(ended === 'noRoom')
      // Where some of it went through, the way is open: the rest is tried again soon.
      failures = ended === 'empty' || ended === 'signedOut' ? 0 : some ? 1 : failures + 1
      if (failures > 0) timer = setTimeout(round, WAITS_MS[Math.min(failures, WAITS_MS.length) - 1])
      else if (again) void round()
      again = false
    }
    wake.current = () => {
      failures = 0
      void round()
    }
    const stopWatching = getStore(author).then(async (store) => {
      await resume(store, author)
      void round()
      return store.watch((all) => {
        // Hundreds are sent one after the other: drawing that gives way to the hand that taps.
        if (!gone) startTransition(() => setContents(all))
      })
    })
    const back = () => wake.current()
    window.addEventListener('online', back)
    document.addEventListener('visibilitychange', back)
    return () => {
      gone = true
      clearTimeout(timer)
      window.removeEventListener('online', back)
      document.removeEventListener('visibilitychange', back)
      void stopWatching.then((stop) => stop())
    }
  }, [author])
  return { contents, hasKey, offline, noRoom, wake: useCallback(() => wake.current(), []) }
}

/**
 * The device's outbox: entries wait here until the server has stored them, also across lost networks, closed tabs and
 * ended sessions. All tabs send under one lock, so that every queue stays in order.
 */
export function OutboxProvider({
  author,
  children,
}: {
  author: Readonly<{ id: string; name: string }>
  children: ReactNode
}) {
  const { contents, hasKey, offline, noRoom, wake } = useRounds(author.id)
  useServiceWorker(author.id)
  const enqueue = useCallback(
    async (queue: string, drafts: readonly DraftEntry[]) => {
      const madeAtMs = Date.now()
      const added = drafts.map((one) => ({
        queue,
        entry: { id: crypto.randomUUID(), ...one, author: author.id, madeAtMs } as OutboxEntry,
      }))
      const strike = getJournal().write(added)
      await (await getStore(author.id)).add(added)
      strike()
      wake()
    },
    [author.id, wake],
  )
  const entries = useMemo(
    () => contents?.entries.filter(({ entry }) => entry.author === author.id) ?? null,
    [contents, author.id],
  )
  const outbox = useMemo<Outbox>(() => {
    const isOwn = (whose: string) => whose === author.id
    const locked = contents?.locked ?? []
    return {
      author,
      entries,
      others: locked.filter((whose) => !isOwn(whose)).length,
      locked: { count: locked.filter(isOwn).length, isForGood: hasKey },
      offline,
      noRoom,
      fragile: entries?.some((entry) => entry.seq >= IN_MEMORY) ?? false,
      enqueue,
      settled: (id) => settled(author.id, id),
      retry: async ({ seq }) => {
        await (await getStore(author.id)).change([seq], { state: 'waiting', attempts: 0, say: '', code: '' })
        wake()
      },
      discard: async ({ seq }) => (await getStore(author.id)).remove([seq]),
      discardLocked: async () => (await getStore(author.id)).removeLocked(),
      forgetDevice: async () => {
        await (await getStore(author.id)).forgetKey()
        await forgetPages()
      },
      sendNow: wake,
    }
  }, [author, contents, entries, hasKey, offline, noRoom, enqueue, wake])
  return <OutboxContext.Provider value={outbox}>{children}</OutboxContext.Provider>
}

async function settled(author: string, id: string): Promise<'sent' | 'refused'> {
  const store = await getStore(author)
  return new Promise((resolve) => {
    const stop = store.watch(({ entries }) => {
      const found = entries.find((e) => e.entry.id === id)
      if (found && found.state !== 'refused') return
      resolve(found ? 'refused' : 'sent')
      // The store may call its watcher before it returns the function to stop.
      queueMicrotask(() => stop())
    })
  })
}

/** Runs under the device's lock where the browser has locks; closing a tab releases it. */
function oneAtATime<T>(work: () => Promise<T>): Promise<T> {
  return 'locks' in navigator ? (navigator.locks.request(LOCK, work) as Promise<T>) : work()
}
