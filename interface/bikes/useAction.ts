'use client'
import { App } from 'antd'
import { useState } from 'react'
import type { ActionResult } from '../shared/actionResult'

type Refused = Extract<ActionResult, { outcome: 'refused' }>
type Kept<T extends object> = Readonly<{ outcome: 'kept' } & T>

/** Calls a server action, says in words when it was refused or the network is gone, and hands on what was kept. */
export function useAction() {
  const { message } = App.useApp()
  const [busy, setBusy] = useState(false)
  async function act<T extends object>(action: () => Promise<ActionResult<T>>): Promise<Kept<T> | null> {
    setBusy(true)
    try {
      const result = await action()
      if (isKept(result)) return result
      message.error(`Not kept: ${(result as Refused).say}.`, 8)
    } catch {
      message.error('The studio’s server cannot be reached. Nothing was lost here; try again.', 6)
    } finally {
      setBusy(false)
    }
    return null
  }
  return { act, busy }
}

const isKept = <T extends object>(result: ActionResult<T>): result is Kept<T> => result.outcome === 'kept'
