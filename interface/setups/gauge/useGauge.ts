'use client'
import { useEffect, useReducer } from 'react'
import { gaugeAfter, NO_GAUGE, parseGaugeEvent, type GaugeAction, type GaugeState } from '@/core/riders/gauge/protocol'

/** Delay before the browser reconnects an ended stream, ms. */
const RETRY_MS = 2000

/** The gauge's stream while the card is open; reconnects whenever it ends. */
export function useGauge(): Readonly<{ state: GaugeState; act: (action: GaugeAction) => void }> {
  const [state, act] = useReducer(gaugeAfter, NO_GAUGE)
  useEffect(() => {
    let source: EventSource | null = null
    let timer: ReturnType<typeof setTimeout> | undefined
    const open = () => {
      source = new EventSource('/api/gauge')
      for (const name of ['reading', 'lost'])
        source.addEventListener(name, (event) => {
          const read = parseGaugeEvent(name, (event as MessageEvent<string>).data)
          if (read) act(read)
        })
      source.onerror = () => {
        source?.close()
        act({ kind: 'gone' })
        timer = setTimeout(open, RETRY_MS)
      }
    }
    open()
    return () => {
      clearTimeout(timer)
      source?.close()
    }
  }, [])
  return { state, act }
}
