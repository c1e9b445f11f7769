'use client'
import { useCallback, useEffect, useMemo, useRef, useState } from 'react'
import { afterEntries, type ClassEntry, type ClassState, type MadeEntry } from '@/core/classes/watch/classState'
import type { OutboxEntry } from '@/server/platform/entry'
import { readSnapshot, saveSnapshot } from '../../offline/storePage'
import { useOwnEntries } from '../../offline/useOwnEntries'
import { useOutbox } from '../../offline/OutboxProvider'
import { useClassNews } from '../useClassNews'

/** The queue of the notes of a class, in order. */
export const CLASS_QUEUE = 'class'

/**
 * A class as noted so far, by everybody: the server's state, and on top the entries of this device and events since. A
 * tap counts at once; it waits in the outbox until the server has it, also when this page is gone.
 */
export function useWatch(
  classId: string,
  initial: ClassState,
  /** Who sits where may have changed. */
  refreshPlaces: () => void,
): Readonly<{
  state: ClassState
  write: (entry: ClassEntry, id?: string) => string
}> {
  const { entries, enqueue } = useOutbox()
  const [base, setBase] = useState(initial)
  /** A first request to the server ended, with or without a response. */
  const [isRequested, setRequested] = useState(false)

  const ofClass = useMemo(() => entries?.filter(({ queue }) => queue === CLASS_QUEUE) ?? null, [entries])
  const waiting = useMemo(
    () =>
      ofClass
        ?.filter(({ state }) => state !== 'refused')
        .flatMap(({ entry }) => madeEntryOf(entry, classId).map((made) => ({ id: made.id, entry: made }))) ?? null,
    [ofClass, classId],
  )
  const refused = useMemo(
    () => new Set(ofClass?.flatMap(({ state, entry }) => (state === 'refused' ? [entry.id] : []))),
    [ofClass],
  )
  const { own, add, report, settle } = useOwnEntries<MadeEntry>(waiting, refused)

  const write = useCallback(
    (entry: ClassEntry, id: string = crypto.randomUUID()) => {
      add([{ id, entry: { id, atMs: Date.now(), entry } }], enqueue(CLASS_QUEUE, [{ ...entry, id }]))
      return id
    },
    [add, enqueue],
  )
  const refresh = useCallback(async () => {
    const requestedAtMs = performance.now()
    try {
      const response = await fetch(`/api/classes/${classId}/watch`, { cache: 'no-store' })
      if (!response.ok) return
      const state = (await response.json()) as ClassState
      setBase(state)
      settle(requestedAtMs)
    } catch {
      // Without network: the page may be older than what this device last knew.
      const snapshot = readSnapshot<ClassState>(classId)
      // One that an earlier version of this page left has no moves.
      if (snapshot) setBase({ ...snapshot, moves: snapshot.moves ?? [] })
    } finally {
      setRequested(true)
    }
  }, [classId, settle])

  useClassNews(classId, (news) => {
    if (news === null) {
      refreshPlaces()
      return void refresh()
    }
    // An entry of this device comes back with the server's time: this device's clock may be wrong.
    report(news.id, news)
  })
  // The page's own rows are older than what was sent while it was being made.
  useEffect(() => {
    // eslint-disable-next-line react-hooks/set-state-in-effect -- the answer comes later
    void refresh()
  }, [refresh])

  const state = useMemo(
    () =>
      afterEntries(
        base,
        own.map(({ entry }) => entry),
      ),
    [base, own],
  )
  useSnapshot(classId, isRequested ? state : null)
  return { state, write }
}

/** Minimum interval of snapshots, ms: one contains all notes of the class. */
const SNAPSHOT_EVERY_MS = 250

/** Stores the state of a class next to its page, soon after each change. */
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
  // Nothing is written once the page is left: signing out leaves nothing of a class on this device.
  useEffect(
    () => () => {
      clearTimeout(due.current)
      due.current = undefined
    },
    [classId],
  )
}

const OPS: readonly string[] = [
  'addNote',
  'changeNote',
  'withdrawNote',
  'addLook',
  'addRoomCue',
  'moveMark',
  'undoMove',
]

function madeEntryOf(entry: OutboxEntry, classId: string): MadeEntry[] {
  if (!OPS.includes(entry.op)) return []
  const own = entry as OutboxEntry & ClassEntry
  return own.classId === classId ? [{ id: own.id, atMs: own.madeAtMs, entry: own }] : []
}
