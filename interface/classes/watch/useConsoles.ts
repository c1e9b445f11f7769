'use client'
import { useEffect, useRef, useState } from 'react'
import type { Block } from '@/core/classes/plan/blocks'
import {
  CONSOLE_WINDOW_MS,
  consoleProposal,
  parseConsoleReading,
  type ConsoleProposal,
  type ConsoleReading,
} from '@/core/classes/watch/console'
import { listenShared } from '../../offline/sharedEvents'

const LOOK_MS = 2000

/** What the bikes' consoles point at just now, by their numbers; nothing where there are none. */
export function useConsoles(numbers: readonly number[], block: Block | null): readonly ConsoleProposal[] {
  const readings = useRef<ConsoleReading[]>([])
  const [proposals, setProposals] = useState<readonly ConsoleProposal[]>([])
  const subscribed = useRef({ numbers, block })
  useEffect(() => {
    subscribed.current = { numbers, block }
  })
  useEffect(() => {
    const stop = listenShared('/api/consoles', {
      message: (data) => {
        const read = parseConsoleReading(data)
        // The device's own clock: consoles and devices need not agree on the time of day.
        if (read) readings.current.push({ ...read, atMs: Date.now() })
      },
      back: () => undefined,
    })
    const look = setInterval(() => {
      const now = Date.now()
      readings.current = readings.current.filter(({ atMs }) => atMs > now - CONSOLE_WINDOW_MS)
      const found = subscribed.current.numbers
        .map((bike) => consoleProposal(readings.current, bike, now, subscribed.current.block))
        .filter((one) => one !== null)
      setProposals((before) => (JSON.stringify(before) === JSON.stringify(found) ? before : found))
    }, LOOK_MS)
    return () => {
      stop()
      clearInterval(look)
    }
  }, [])
  return proposals
}
