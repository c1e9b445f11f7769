'use client'
import { useEffect, useState } from 'react'
import type { Member } from '@/server/riders/members/members'
import { findMembers } from './findMembers'

/** Debounce of typing before a request, ms. */
const PAUSE_MS = 150

/** `isFresh`: `found` is of the present text; until then, the earlier results that still match. */
type MemberSearch = Readonly<{ found: readonly Member[]; isFresh: boolean; failed: boolean }>

const folded = (text: string): string => text.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase()

/** Members whose name has every typed word; ignores accents. */
function narrowed(members: readonly Member[], typed: string): readonly Member[] {
  const words = folded(typed).split(/\s+/)
  return members.filter(({ name }) => words.every((word) => folded(name).includes(word)))
}

/**
 * The members found for what is typed, while `open`. The latest question counts, whichever answer comes last. Names
 * that no longer fit go at once, so that what is pressed afterwards does not move away under the finger.
 */
export function useMemberSearch(typed: string, open = true): MemberSearch {
  const [state, setState] = useState<{ found: readonly Member[]; of: string | null; failed: boolean }>({
    found: [],
    of: null,
    failed: false,
  })
  useEffect(() => {
    if (!open) return
    let stale = false
    const timer = setTimeout(() => {
      findMembers(typed)
        .then((found) => stale || setState({ found, of: typed, failed: false }))
        .catch(() => stale || setState({ found: [], of: typed, failed: true }))
    }, PAUSE_MS)
    return () => {
      stale = true
      clearTimeout(timer)
    }
  }, [open, typed])
  const isFresh = state.of === typed
  return { found: isFresh ? state.found : narrowed(state.found, typed), isFresh, failed: state.failed }
}
