'use client'
import { useCallback, useEffect, useMemo, useRef, useState } from 'react'
import { afterEntries, type ClassEntry, type ClassState, type MadeEntry } from '@/core/watch/classState'
import type { OutboxEntry } from '@/server/outbox/entry'
import { readSnapshot, saveSnapshot } from '../offline/keepPage'
import { useOutbox } from '../outbox/OutboxProvider'
import { useClassNews } from './useClassNews'

/** The queue of what is noted in a class: its order is kept. */
export const CLASS_QUEUE = 'class'

/** An entry on this page; `knownAtMs`: when the server had it, null while it is only here. */
type Held = MadeEntry & Readonly<{ knownAtMs: number | null }>

/**
 * A class as noted so far, by everybody: what the server told, and over it what was written here and heard since. A
 * tap counts at once; it waits in the outbox until the server has it, also when this page is gone.
 */
export function useWatch(
  classId: string,
  told: ClassState,
  /** Who sits where may have changed. */
  refreshPlaces: () => void,
): Readonly<{
  state: ClassState
  write: (entry: ClassEntry, id?: string) => string
}> {
  const { author, entries, enqueue } = useOutbox()
  const [base, setBase] = useState(told)
  const [held, setHeld] = useState<readonly Held[]>([])
  /** The server was asked once, whether it answered or not. */
  const [asked, setAsked] = useState(false)

  /** Entries that lie, or lay, in the device's store: one that is there no more has reached the server. */
  const stored = useRef(new Set<string>())
  const write = useCallback(
    (entry: ClassEntry, id: string = crypto.randomUUID()) => {
      setHeld((all) => [...all, { id, atMs: Date.now(), entry, knownAtMs: null }])
      void enqueue(CLASS_QUEUE, [{ ...entry, id }]).then(() => stored.current.add(id))
      return id
    },
    [enqueue],
  )
  const refresh = useCallback(async () => {
    const askedAtMs = Date.now()
    try {
      const response = await fetch(`/api/classes/${classId}/watch`, { cache: 'no-store' })
      if (!response.ok) return
      const state = (await response.json()) as ClassState
      setBase(state)
      setHeld((all) => all.filter(({ knownAtMs }) => knownAtMs === null || knownAtMs > askedAtMs))
    } catch {
      // Without network: the page may be older than what this device last knew.
      const kept = readSnapshot<ClassState>(classId)
      if (kept) setBase(kept)
    } finally {
      setAsked(true)
    }
  }, [classId])

  // What was tapped before this page was made, and waits on the device.
  const waiting = useMemo(
    () =>
      (entries ?? [])
        .filter(({ queue, entry, state }) => queue === CLASS_QUEUE && state !== 'refused' && entry.author === author.id)
        .flatMap(({ entry }) => madeEntryOf(entry, classId)),
    [entries, author.id, classId],
  )
  useEffect(() => {
    if (entries === null) return
    const there = new Map(entries.map(({ entry, state }) => [entry.id, state]))
    for (const { id } of waiting) stored.current.add(id)

    setHeld((all) => {
      const known = new Set(all.map(({ id }) => id))
      const fresh = waiting.filter(({ id }) => !known.has(id)).map((one) => ({ ...one, knownAtMs: null }))
      const left = (one: Held) => one.knownAtMs === null && stored.current.has(one.id) && !there.has(one.id)
      const refused = (one: Held) => there.get(one.id) === 'refused'
      if (fresh.length === 0 && !all.some((one) => left(one) || refused(one))) return all
      const now = Date.now()
      return [
        ...fresh,
        ...all.filter((one) => !refused(one)).map((one) => (left(one) ? { ...one, knownAtMs: now } : one)),
      ]
    })
  }, [waiting, entries])

  useClassNews(classId, (news) => {
    if (news === null) {
      refreshPlaces()
      return void refresh()
    }
    // What was written here comes back with the server's time: this device's clock may be wrong.
    setHeld((all) =>
      all.some(({ id }) => id === news.id)
        ? all.map((one) => (one.id === news.id ? { ...one, atMs: news.atMs } : one))
        : [...all, { ...news, knownAtMs: Date.now() }],
    )
  })
  // The page's own rows are older than what was sent while it was being made.
  useEffect(() => {
    // eslint-disable-next-line react-hooks/set-state-in-effect -- the answer comes later
    void refresh()
  }, [refresh])

  const state = useMemo(() => afterEntries(base, held), [base, held])
  useSnapshot(classId, asked ? state : null)
  return { state, write }
}

/** A snapshot is written at most so often, ms: it holds all notes of the class. */
const SNAPSHOT_EVERY_MS = 250

/** Keeps beside the page what it knows of a class, soon after each change. */
function useSnapshot(classId: string, state: ClassState | null): void {
  const latest = useRef(state)
  const due = useRef<ReturnType<typeof setTimeout>>(undefined)
  useEffect(() => {
    latest.current = state
    if (!state) return
    due.current ??= setTimeout(() => {
      due.current = undefined
      if (latest.current) saveSnapshot(classId, latest.current)
    }, SNAPSHOT_EVERY_MS)
  }, [classId, state])
  // Nothing is written once the page is left: whoever signs out leaves nothing of a class on this device.
  useEffect(
    () => () => {
      clearTimeout(due.current)
      due.current = undefined
    },
    [classId],
  )
}

const OPS: readonly string[] = ['addNote', 'changeNote', 'withdrawNote', 'addLook', 'addRoomCue']

function madeEntryOf(entry: OutboxEntry, classId: string): MadeEntry[] {
  if (!OPS.includes(entry.op)) return []
  const own = entry as OutboxEntry & ClassEntry
  return own.classId === classId ? [{ id: own.id, atMs: own.madeAtMs, entry: own }] : []
}
