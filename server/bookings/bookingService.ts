import { readBookingFeed, type BookingFeed } from './feed'

/** What a booking service answered: its feed, or that it did not. */
export type BookingAnswer =
  | Readonly<{ outcome: 'read'; feed: BookingFeed }>
  /** Not reached, an answer that says it is down, or one that no booking service gives. */
  | Readonly<{ outcome: 'unreachable' | 'down' | 'nonsense' }>

/** Where classes and bookings come from. */
export type BookingService = Readonly<{ read: () => Promise<BookingAnswer> }>

/** Longer than this no answer is waited for, ms; no answer is longer, bytes. */
const PATIENCE_MS = 10_000
const LONGEST = 4_000_000

/** A text over HTTP, or why there is none. */
export async function readText(
  url: string,
  accept: string,
): Promise<Readonly<{ outcome: 'read'; text: string }> | Readonly<{ outcome: 'unreachable' | 'down' | 'nonsense' }>> {
  try {
    const response = await fetch(url, {
      headers: { accept },
      signal: AbortSignal.timeout(PATIENCE_MS),
      redirect: 'error',
      cache: 'no-store',
    })
    if (!response.ok) return { outcome: 'down' }
    const text = await response.text()
    return text.length > LONGEST ? { outcome: 'nonsense' } : { outcome: 'read', text }
  } catch {
    return { outcome: 'unreachable' }
  }
}

/** A booking service's bridge over HTTP, at its feed's address. */
export function httpBookingService(url: string): BookingService {
  return {
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
