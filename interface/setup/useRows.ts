'use client'
import { useCallback, useEffect, useRef, useState } from 'react'
import type { Evidence } from '@/core/evidence/evidence'
import { keep, withdraw, type Kept } from './actions'
import type { Row } from './flow'

/** One thing still to be told to the server. */
type Word = Readonly<{ say: 'keep'; id: string; row: Evidence }> | Readonly<{ say: 'withdraw'; id: string }>

export type Saving = 'saved' | 'saving' | 'waiting'

const RETRY_MS = 3000

/**
 * The rows of a set-up, here first and then on the server: every tap counts at once, is kept on the device until the
 * server has it, and is sent again after a broken network. `refused` is told in words what the server would not take.
 */
export function useRows(setupId: string, stored: readonly Row[], refused: (say: string) => void) {
  const key = `set-up ${setupId}`
  const [rows, setRows] = useState<readonly Row[]>(stored)
  const [saving, setSaving] = useState<Saving>('saved')
  const words = useRef<Word[]>([])
  const busy = useRef(false)

  const send = useCallback(async () => {
    if (busy.current) return
    busy.current = true
    while (words.current.length > 0) {
      setSaving('saving')
      const word = words.current[0]
      let kept: Kept
      try {
        kept = word.say === 'keep' ? await keep(setupId, word.id, word.row) : await withdraw(setupId, word.id)
      } catch {
        setSaving('waiting')
        await new Promise((resolve) => setTimeout(resolve, RETRY_MS))
        continue
      }
      words.current = words.current.slice(1)
      remember(key, words.current)
      if (kept.outcome === 'refused') {
        setRows((all) => all.filter((r) => r.id !== word.id))
        refused(kept.say)
      }
    }
    busy.current = false
    setSaving('saved')
  }, [key, refused, setupId])

  useEffect(() => {
    const left = remembered(key)
    if (left.length === 0) return
    words.current = [...left, ...words.current]
    queueMicrotask(() => {
      setRows((all) => replayed(all, left))
      send()
    })
  }, [key, send])

  const tell = useCallback(
    (added: readonly Word[]) => {
      words.current = [...words.current, ...added]
      remember(key, words.current)
      setRows((all) => replayed(all, added))
      send()
    },
    [key, send],
  )
  const add = useCallback((row: Evidence) => tell([{ say: 'keep', id: crypto.randomUUID(), row }]), [tell])
  const replace = useCallback(
    (old: Row | undefined, row: Evidence) => tell([...(old ? [{ say: 'withdraw', id: old.id } as const] : []), { say: 'keep', id: crypto.randomUUID(), row }]),
    [tell],
  )
  const takeBack = useCallback((row: Row) => tell([{ say: 'withdraw', id: row.id }]), [tell])
  return { rows, saving, add, replace, takeBack }
}

function replayed(rows: readonly Row[], words: readonly Word[]): readonly Row[] {
  return words.reduce<readonly Row[]>((all, word) => {
    const without = all.filter((r) => r.id !== word.id)
    return word.say === 'keep' ? [...without, { id: word.id, row: word.row }] : without
  }, rows)
}

function remember(key: string, words: readonly Word[]): void {
  try {
    if (words.length === 0) localStorage.removeItem(key)
    else localStorage.setItem(key, JSON.stringify(words))
  } catch {
    // A device that keeps nothing still sends; only a reload with no network would lose the last taps.
  }
}

function remembered(key: string): Word[] {
  try {
    const found: unknown = JSON.parse(localStorage.getItem(key) ?? '[]')
    return Array.isArray(found) ? (found as Word[]) : []
  } catch {
    return []
  }
}
