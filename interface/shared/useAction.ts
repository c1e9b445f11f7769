'use client'
import { App } from 'antd'
import { useState } from 'react'
import type { ActionResult } from './actionResult'

type Refusal = Extract<ActionResult, { outcome: 'refused' }>
type Success<T extends object> = Readonly<{ outcome: 'kept' } & T>

/** Calls a server action, says in words when it was refused or the network is gone, and hands on what was kept. */
export function useAction() {
  const { message } = App.useApp()
  const [busy, setBusy] = useState(false)
  async function act<T extends object>(action: () => Promise<ActionResult<T>>): Promise<Success<T> | null> {
    setBusy(true)
    try {
      const result = await action()
      if (isSuccess(result)) return result
      message.error(`Not kept: ${(result as Refusal).say}.`, 8)
    } catch {
      message.error(await whyNot(), 6)
    } finally {
      setBusy(false)
    }
    return null
  }
  return { act, busy }
}

/** Timeout of the health request, ms. */
const HEALTH_TIMEOUT_MS = 4000

/** Message for a failed action: a full disk if the server reports one, else an unreachable server. */
async function whyNot(): Promise<string> {
  const answer = await fetch('/api/health', {
    cache: 'no-store',
    signal: AbortSignal.timeout(HEALTH_TIMEOUT_MS),
  }).catch(() => null)
  if (answer?.headers.get('x-storage') === 'full')
    return 'The disk of the studio’s computer is full: nothing was written. Make room there, then try again.'
  return 'The studio’s server cannot be reached. Nothing was lost here; try again.'
}

const isSuccess = <T extends object>(result: ActionResult<T>): result is Success<T> => result.outcome === 'kept'
