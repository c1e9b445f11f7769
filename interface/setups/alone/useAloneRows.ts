'use client'
import { useCallback, useEffect, useRef, useState, useSyncExternalStore } from 'react'
import type { Evidence } from '@/core/riders/evidence/registry'
import type { AloneResponse } from '@/core/operations/requests/alone'
import type { AloneRequest } from '@/core/setups/alone/alone'

/** What was begun longer ago than this was another visit, ms. */
const MAX_AGE_MS = 3 * 3_600_000
const keyOf = (code: string) => `alone-${code}`

/** Rows of one visit, and the name they were left with. */
type Visit = Readonly<{ at: number; rows: readonly Evidence[]; left?: string }>

const NOTHING: Visit = Object.freeze({ at: 0, rows: [] })
const visits = new Map<string, Visit>()
const listeners = new Set<() => void>()

/** The visit at a machine, as this phone keeps it. */
function visitAt(code: string): Visit {
  const known = visits.get(code)
  if (known) return known
  const stored = readStored(code) ?? NOTHING
  visits.set(code, stored)
  return stored
}

function readStored(code: string): Visit | null {
  try {
    const stored = JSON.parse(localStorage.getItem(keyOf(code)) ?? 'null') as Visit | null
    return stored && Date.now() - stored.at < MAX_AGE_MS && Array.isArray(stored.rows) ? stored : null
  } catch {
    return null
  }
}

function keep(code: string, visit: Visit): void {
  visits.set(code, visit)
  try {
    if (visit.rows.length > 0) localStorage.setItem(keyOf(code), JSON.stringify(visit))
    else localStorage.removeItem(keyOf(code))
  } catch {
    // A phone that forbids storage begins again when the page is opened again.
  }
  listeners.forEach((changed) => changed())
}

function subscribe(changed: () => void): () => void {
  listeners.add(changed)
  return () => listeners.delete(changed)
}

type Computed = Readonly<{ of: readonly Evidence[]; answer: AloneResponse | null }>

/**
 * The rows of somebody alone at a machine, kept on this phone for some hours, and the step they lead to; `rows` is null
 * until the page knows what the phone keeps. `answer` is that of the rows, or null while it is computed; `failed`: the
 * arithmetic cannot be had, or does not take what an earlier version of the page stored.
 */
export function useAloneRows(code: string, base: Omit<AloneRequest, 'evidence'>) {
  const visit = useSyncExternalStore(
    subscribe,
    () => visitAt(code),
    () => null,
  )
  const rows = visit && visit.rows
  const [computed, setComputed] = useState<Computed | null>(null)
  const asked = useRef(base)
  const compute = useCallback(async (evidence: readonly Evidence[]) => {
    try {
      // The arithmetic is fetched behind the page, while the first questions are read.
      const { requestCore } = await import('../../compute/requestCore')
      const answer = (await requestCore('alone', { ...asked.current, evidence })) as AloneResponse
      setComputed({ of: evidence, answer: 'step' in answer ? answer : null })
    } catch {
      setComputed({ of: evidence, answer: null })
    }
  }, [])
  useEffect(() => {
    if (rows) void compute(rows)
  }, [rows, compute])

  const become = (next: readonly Evidence[]) => keep(code, { at: Date.now(), rows: next })
  const isCurrent = computed !== null && computed.of === rows
  return {
    rows,
    answer: isCurrent ? computed.answer : null,
    /** The answer before, while the next is computed. */
    before: computed?.answer ?? null,
    failed: isCurrent && computed.answer === null,
    left: visit?.left ?? null,
    again: () => rows && void compute(rows),
    add: (...added: readonly Evidence[]) => become([...(rows ?? []), ...added]),
    undo: () => become(withoutLast(rows ?? [])),
    restart: () => become([]),
    leave: (name: string) => keep(code, { at: Date.now(), rows: rows ?? [], left: name }),
  }
}

/** Without the answer of the last tap: the heel on the seat too low came with the setting of it. */
function withoutLast(rows: readonly Evidence[]): readonly Evidence[] {
  const [before, last] = rows.slice(-2)
  const isOneTap = last?.kind === 'heelCheck' && before?.kind === 'set' && isShownLow(rows)
  return rows.slice(0, isOneTap ? -2 : -1)
}
const isShownLow = (rows: readonly Evidence[]): boolean =>
  rows.filter(({ kind }) => kind === 'set').length === 1 &&
  rows.some((row) => row.kind === 'rider' && row.experience !== 'experienced')
