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
import { useServiceWorker } from './storePage'
import { createJournal, recover, type Journal } from './journal'
import { recordDelivery } from './lastDelivery'
import { send } from './send'
import { openStore, type OutboxStore, type StoredEntry } from './store'

type WithoutOrigin<E> = E extends unknown ? Omit<E, 'id' | 'author' | 'madeAtMs'> : never
/** What is to be sent, without what every entry has; `id` where the caller needs to know it. */
export type DraftEntry = WithoutOrigin<OutboxEntry> & Readonly<{ id?: string }>

type Outbox = Readonly<{
  author: Readonly<{ id: string; name: string }>
  /** Everything on this device, of every author; null until it was read. */
  entries: readonly StoredEntry[] | null
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

/** One store per page, opened once; Dexie synchronizes all tabs of the device. */
let opened: Promise<OutboxStore> | undefined
const getStore = (): Promise<OutboxStore> => (opened ??= openWithWhatWasLeft())

async function openWithWhatWasLeft(): Promise<OutboxStore> {
  const store = await openStore()
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
  const [entries, setEntries] = useState<readonly StoredEntry[] | null>(null)
  const [offline, setOffline] = useState(false)
  const [noRoom, setNoRoom] = useState(false)
  const [fragile, setFragile] = useState(false)
  const wake = useRef<() => void>(() => undefined)
  useServiceWorker(author.id)

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
      const store = await getStore()
      let some = false
      const sendCounted: typeof send = async (entry) => {
        const sent = await send(entry)
        if (sent.outcome === 'kept') {
          some = true
          recordDelivery(storageOrNone(), Date.now())
        }
        return sent
      }
      const ended = await oneAtATime(() => drain(store, author.id, sendCounted)).catch(() => 'later' as const)
      running = false
      if (gone) return
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
    const stopWatching = getStore().then(async (store) => {
      await resume(store, author.id)
      void round()
      return store.watch((all) => {
        if (gone) return
        // Hundreds are sent one after the other: drawing that gives way to the hand that taps.
        startTransition(() => {
          setEntries(all)
          setFragile(all.some((entry) => !store.lasts(entry)))
        })
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
  }, [author.id])

  const enqueue = useCallback(
    async (queue: string, drafts: readonly DraftEntry[]) => {
      const madeAtMs = Date.now()
      const added = drafts.map((one) => ({
        queue,
        entry: { id: crypto.randomUUID(), ...one, author: author.id, madeAtMs } as OutboxEntry,
      }))
      const strike = getJournal().write(added)
      await (await getStore()).add(added)
      strike()
      wake.current()
    },
    [author.id],
  )
  const outbox = useMemo<Outbox>(
    () => ({
      author,
      entries,
      offline,
      noRoom,
      fragile,
      enqueue,
      settled,
      retry: async ({ seq }) => {
        await (await getStore()).change([seq], { state: 'waiting', attempts: 0, say: '', code: '' })
        wake.current()
      },
      discard: async ({ seq }) => (await getStore()).remove([seq]),
      sendNow: () => wake.current(),
    }),
    [author, entries, offline, noRoom, fragile, enqueue],
  )
  return <OutboxContext.Provider value={outbox}>{children}</OutboxContext.Provider>
}

async function settled(id: string): Promise<'sent' | 'refused'> {
  const store = await getStore()
  return new Promise((resolve) => {
    const stop = store.watch((all) => {
      const found = all.find((e) => e.entry.id === id)
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
