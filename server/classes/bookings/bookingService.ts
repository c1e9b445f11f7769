import { readBookingFeed, type BookingFeed } from './feed'

/** What a booking service answered: its feed, or that it did not. */
export type BookingAnswer =
  | Readonly<{ outcome: 'read'; feed: BookingFeed }>
  /** Not reached, an answer of a service that is down, or one that no booking service gives. */
  | Readonly<{ outcome: 'unreachable' | 'down' | 'nonsense' }>

/** Where classes and bookings come from. */
export type BookingService = Readonly<{ address: string; read: () => Promise<BookingAnswer> }>

/** Limits of a response: total time, ms, and size, bytes. */
export type Patience = Readonly<{ ms: number; bytes: number }>
const PATIENCE: Patience = { ms: 10_000, bytes: 4_000_000 }

/**
 * Reads a text over HTTP and counts its bytes while reading. Returns `nonsense` for a longer response and `unreachable`
 * for a slower one.
 */
export async function readText(
  url: string,
  accept: string,
  { ms, bytes }: Patience = PATIENCE,
): Promise<Readonly<{ outcome: 'read'; text: string }> | Readonly<{ outcome: 'unreachable' | 'down' | 'nonsense' }>> {
  const gone = new AbortController()
  const limit = setTimeout(() => gone.abort(), ms)
  try {
    const response = await fetch(url, {
      headers: { accept },
      signal: gone.signal,
      redirect: 'error',
      cache: 'no-store',
    })
    if (!response.ok) return { outcome: 'down' }
    const text = response.body ? await textWithin(response.body, bytes, gone.signal) : ''
    return text === null ? { outcome: 'nonsense' } : { outcome: 'read', text }
  } catch {
    return { outcome: 'unreachable' }
  } finally {
    clearTimeout(limit)
    gone.abort()
  }
}

/** Text of a body, or null if it exceeds `most` bytes; stops reading there. */
async function textWithin(body: ReadableStream<Uint8Array>, most: number, signal: AbortSignal): Promise<string | null> {
  const reader = body.getReader()
  signal.addEventListener('abort', () => void reader.cancel().catch(() => undefined))
  const decoder = new TextDecoder()
  let text = ''
  for (let read = 0; ;) {
    const { done, value } = await reader.read()
    if (signal.aborted) throw new Error('took too long')
    if (done) return text + decoder.decode()
    read += value.byteLength
    if (read > most) return null
    text += decoder.decode(value, { stream: true })
  }
}

/** A booking service's bridge over HTTP, at its feed's address. */
export function httpBookingService(url: string): BookingService {
  return {
    address: url,
    read: async () => {
      const answer = await readText(url, 'application/json')
      if (answer.outcome !== 'read') return answer
      try {
        const feed = readBookingFeed(JSON.parse(answer.text))
        return feed ? { outcome: 'read', feed } : { outcome: 'nonsense' }
      } catch {
        return { outcome: 'nonsense' }
      }
    },
  }
}
