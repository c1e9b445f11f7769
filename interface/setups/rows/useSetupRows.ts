'use client'
import { useCallback, useEffect, useMemo, useRef, useState } from 'react'
import type { Marks } from '@/core/base/conventions'
import type { Purpose } from '@/core/setups/register/entry'
import { hasHealthAnswer } from '@/core/riders/evidence/healthAnswers'
import type { Evidence } from '@/core/riders/evidence/registry'
import type { EntryOf, OutboxEntry } from '@/server/platform/entry'
import { useOutbox, type DraftEntry } from '../../offline/OutboxProvider'
import type { StoredEntry } from '../../offline/store'
import type { Row } from '../steps/flow'
import type { Replacement } from '../misSet/misSet'
import { useOwnEntries } from '../../offline/useOwnEntries'
import { useStable } from '../../kit/useStable'
import { withPendingEntries } from './pendingEntries'

/** Somebody else's taps are here within two seconds. */
const POLL_MS = 1500

export type SetupRows = Readonly<{
  rows: readonly Row[]
  /** This set-up's entries still on the device. */
  pending: readonly StoredEntry[]
  /** Somebody saved its numbers while the page was open. */
  finishedElsewhere: boolean
  add: (row: Evidence) => void
  replace: (old: Row | undefined, row: Evidence) => void
  /** Several at once: all of them reach the outbox, or none. */
  replaceAll: (replacements: readonly Replacement[]) => void
  /** Takes the latest tap back: what it replaced, several rows together, has its former value again. */
  undo: () => void
  /** Resolves once the numbers are in the outbox. */
  save: (id: string, marks: Marks, purpose: Purpose, starter?: EntryOf<'finishSetup'>['starter']) => Promise<void>
}>

/**
 * The rows of a set-up: the server's, polled since two devices may work on it, with this device's own
 * taps on top, which count at once and wait in the outbox until the server has them.
 */
export function useSetupRows(setupId: string, stored: readonly Row[]): SetupRows {
  const queue = `set-up ${setupId}`
  const { entries, enqueue } = useOutbox()
  const [server, setServer] = useState(stored)
  const [finishedElsewhere, setFinishedElsewhere] = useState(false)
  const pending = useMemo(() => (entries ?? []).filter((e) => e.queue === queue), [entries, queue])
  const waiting = useMemo(
    () => entries && pending.filter((e) => e.state !== 'refused').map(({ entry }) => ({ id: entry.id, entry })),
    [entries, pending],
  )
  const refused = useMemo(() => new Set(pending.flatMap((e) => (e.state === 'refused' ? [e.entry.id] : []))), [pending])
  const { own, add: addOwn, settle } = useOwnEntries<OutboxEntry>(waiting, refused)

  useEffect(() => {
    let gone = false
    async function poll(): Promise<void> {
      if (document.visibilityState === 'hidden') return
      const requestedAtMs = performance.now()
      try {
        const response = await fetch(`/api/set-ups/${setupId}/rows`, { cache: 'no-store' })
        if (!response.ok || gone) return
        const { rows, finished } = (await response.json()) as { rows: Row[]; finished: boolean }
        if (gone) return
        setServer((current) => (sameRows(current, rows) ? current : rows))
        settle(requestedAtMs)
        setFinishedElsewhere(finished)
      } catch {
        // No network: the next poll tries again.
      }
    }
    const timer = setInterval(() => void poll(), POLL_MS)
    return () => {
      gone = true
      clearInterval(timer)
    }
  }, [setupId, settle])

  const merged = useMemo(
    () =>
      withPendingEntries(
        server,
        own.map(({ entry }) => entry),
      ),
    [server, own],
  )
  // On its way to the server a tap changes its state, not the rows: the same rows are not inferred from again.
  const rows = useStable(merged, sameRows)

  const send = useCallback(
    (drafts: readonly DraftEntry[]) => {
      const named = drafts.map((one) => ({
        ...one,
        id: one.id ?? crypto.randomUUID(),
      })) as unknown as readonly OutboxEntry[]
      const stored = enqueue(queue, named)
      addOwn(
        named.map((entry) => ({ id: entry.id, entry })),
        stored,
      )
      return stored
    },
    [enqueue, queue, addOwn],
  )
  // An answer about health is only given where the rider agrees to notes.
  const addition = useCallback(
    (row: Evidence): DraftEntry => ({
      op: 'appendEvidence',
      setupId,
      row,
      ...(hasHealthAnswer(row) && { agrees: true }),
    }),
    [setupId],
  )
  const withdrawal = useCallback(
    (row: Row): DraftEntry => ({ op: 'withdrawEvidence', setupId, rowId: row.id }),
    [setupId],
  )
  const add = useCallback((row: Evidence) => void send([addition(row)]), [send, addition])
  /** By the id of a row that replaced others: everything that was replaced with it. */
  const replaced = useRef(new Map<string, readonly Readonly<{ id: string; old: Row | undefined }>[]>())
  const replaceAll = useCallback(
    (replacements: readonly Replacement[]) => {
      const made = replacements.map(({ old, row }) => ({ id: crypto.randomUUID(), old, row }))
      for (const { id } of made) replaced.current.set(id, made)
      void send(made.flatMap(({ id, old, row }) => [...(old ? [withdrawal(old)] : []), { ...addition(row), id }]))
    },
    [send, addition, withdrawal],
  )
  const replace = useCallback((old: Row | undefined, row: Evidence) => replaceAll([{ old, row }]), [replaceAll])
  const undo = useCallback(() => {
    const last = rows.at(-1)
    if (!last) return
    const batch = replaced.current.get(last.id) ?? [{ id: last.id, old: undefined }]
    const standing = batch.filter(({ id }) => rows.some((row) => row.id === id))
    void send(
      standing.flatMap(({ id, old }) => {
        const withdrawn = withdrawal(rows.find((row) => row.id === id)!)
        if (!old) return [withdrawn]
        // What the former value had replaced in its turn comes back with the next undo.
        const again = crypto.randomUUID()
        const before = replaced.current.get(old.id)
        if (before) replaced.current.set(again, [{ id: again, old: before.find((one) => one.id === old.id)?.old }])
        return [withdrawn, { ...addition(old.row), id: again }]
      }),
    )
  }, [rows, send, addition, withdrawal])
  const save = useCallback(
    (id: string, marks: Marks, purpose: Purpose, starter?: EntryOf<'finishSetup'>['starter']) =>
      send([{ op: 'finishSetup', id, setupId, marks, purpose, ...(starter && { starter }) }]),
    [send, setupId],
  )
  return { rows, pending, finishedElsewhere, add, replace, replaceAll, undo, save }
}

/** Rows are never changed under their id. */
const sameRows = (a: readonly Row[], b: readonly Row[]): boolean =>
  a.length === b.length && a.every((row, i) => row.id === b[i].id)
