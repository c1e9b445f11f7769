'use client'
import { App } from 'antd'
import { useState } from 'react'
import { asSentence } from '@/core/messages/refusals'

/** Answer of a command or query: its data, or a refusal with a sentence. A throw is a fault of server or network. */
export type Answer = Readonly<{ outcome: 'kept' | 'found' }> | Refused
type Refused = Readonly<{ outcome: 'refused'; say: string }>

/** Sends a command or query, shows a message when it was refused or the network is gone, and returns other answers. */
export function useAction() {
  const { message } = App.useApp()
  const [busy, setBusy] = useState(false)
  async function act<A extends Answer>(action: () => Promise<A>): Promise<Exclude<A, Refused> | null> {
    setBusy(true)
    try {
      const result = await action()
      if (result.outcome !== 'refused') return result as Exclude<A, Refused>
      message.error(`Not kept: ${asSentence((result as Refused).say)}`, 8)
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
