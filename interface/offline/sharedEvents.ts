'use client'

/** Delays before reconnecting an ended stream, ms; the last one repeats. */
const RETRY_MS = [2000, 5000, 15_000, 60_000] as const

type Heard = Readonly<{ message: (data: string) => void; back: () => void }>
type TabMessage = Readonly<{ data: string } | { isBack: true }>

/**
 * Listens to server-sent events, once a device: a browser opens few connections to one server, and each stream occupies
 * one for good. One tab listens and hands on to the others; when it goes, the next takes over. `back` is called
 * whenever something may have been missed. Returns how to stop.
 */
export function listenShared(url: string, { message, back }: Heard): () => void {
  if (!('locks' in navigator) || typeof BroadcastChannel === 'undefined') return openStream(url, { message, back })
  const name = `yielding-saddle-events ${url}`
  const channel = new BroadcastChannel(name)
  channel.onmessage = ({ data }: MessageEvent<TabMessage>) => ('data' in data ? message(data.data) : back())
  const over = new AbortController()
  let close: () => void = () => undefined
  const lead = () =>
    new Promise<void>((ended) => {
      let first = true
      const stop = openStream(url, {
        message: (data) => {
          channel.postMessage({ data })
          message(data)
        },
        back: () => {
          channel.postMessage({ isBack: true })
          back()
        },
        opened: () => {
          // Who takes over from another tab has missed what came between.
          if (first) back()
          first = false
        },
      })
      close = () => {
        stop()
        ended()
      }
      if (over.signal.aborted) close()
    })
  navigator.locks.request(name, { signal: over.signal }, lead).catch(() => undefined)
  return () => {
    over.abort()
    close()
    channel.close()
  }
}

function openStream(url: string, { message, back, opened }: Heard & Readonly<{ opened?: () => void }>): () => void {
  let source: EventSource
  let timer: ReturnType<typeof setTimeout> | undefined
  let failures = 0
  let wasGone = false
  const open = () => {
    source = new EventSource(url)
    source.onopen = () => {
      opened?.()
      if (wasGone) back()
      wasGone = false
      failures = 0
    }
    source.onmessage = ({ data }) => message(data as string)
    source.onerror = () => {
      source.close()
      wasGone = true
      timer = setTimeout(open, RETRY_MS[Math.min(failures++, RETRY_MS.length - 1)])
    }
  }
  open()
  return () => {
    clearTimeout(timer)
    source.close()
  }
}
