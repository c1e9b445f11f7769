'use client'
import { App } from 'antd'
import { useState } from 'react'
import type { Answered, Kept, Refused } from './actions'

/** Calls a server action, says in words when it was refused or the network is gone, and hands on what was kept. */
export function useAction() {
  const { message } = App.useApp()
  const [busy, setBusy] = useState(false)
  async function act<T>(word: () => Promise<Answered<T>>): Promise<Kept<T> | null> {
    setBusy(true)
    try {
      const answer = await word()
      if (isKept(answer)) return answer
      message.error(`Not kept: ${(answer as Refused).say}.`, 8)
    } catch {
      message.error('The studio’s server cannot be reached. Nothing was lost here; try again.', 6)
    } finally {
      setBusy(false)
    }
    return null
  }
  return { act, busy }
}

const isKept = <T>(answer: Answered<T>): answer is Kept<T> => answer.outcome === 'kept'
