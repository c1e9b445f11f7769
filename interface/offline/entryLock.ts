import type { OutboxEntry } from '@/server/platform/entry'

/** What an entry's row shows without its key: only what the outbox sorts and counts by. */
export type EntryOutline = Pick<OutboxEntry, 'id' | 'author'>
/** A locked entry: AES-256-GCM over its JSON; the outline is authenticated with it. */
export type LockedEntry = Readonly<{ iv: Uint8Array<ArrayBuffer>; data: ArrayBuffer }>
/** As stored on the device. A row of an earlier version has the entry itself and no `locked`. */
export type EntryRow = Readonly<{ entry: OutboxEntry | EntryOutline; locked?: LockedEntry }>

/** Where a key lies between two visits; forgotten at sign-out. */
export type KeyStorage = Readonly<{
  get: (author: string) => Promise<CryptoKey | undefined>
  put: (author: string, key: CryptoKey) => Promise<void>
  remove: (author: string) => Promise<void>
  removeOthers: (author: string) => Promise<void>
}>

/** Locks and opens the entries of one author on a device. */
export type EntryLock = Readonly<{
  author: string
  /** Whether entries can be locked and opened now: there is a key, stored or from the server. */
  hasKey: () => Promise<boolean>
  /** Rejects without a key, and for an entry of another author. */
  seal: (entry: OutboxEntry) => Promise<EntryRow>
  /** The entry of a row; null for one of another author, of another key, or without a key. */
  open: (row: EntryRow) => Promise<OutboxEntry | null>
  /** Removes the author's key from the device. A page that is open goes on with it until it is closed. */
  forget: () => Promise<void>
}>

const IV_BYTES = 12

/**
 * The lock of one author. `fetchKey` gives the 32 bytes of the author's key as long as their session lasts, else null.
 * The key is stored so that it cannot be read out again, and keys of other authors leave the device.
 */
export function createLock(
  author: string,
  storage: KeyStorage,
  fetchKey: () => Promise<Uint8Array<ArrayBuffer> | null>,
): EntryLock {
  let known: Promise<CryptoKey | null> | undefined
  let areOthersGone = false
  const findKey = async (): Promise<CryptoKey | null> => {
    // A page that is not served over TLS has no keys.
    if (!globalThis.crypto?.subtle) return null
    if (!areOthersGone) await storage.removeOthers(author).catch(() => undefined)
    areOthersGone = true
    const stored = await storage.get(author).catch(() => undefined)
    if (stored) return stored
    const bytes = await fetchKey().catch(() => null)
    if (!bytes) return null
    const key = await crypto.subtle.importKey('raw', bytes, 'AES-GCM', false, ['encrypt', 'decrypt'])
    await storage.put(author, key).catch(() => undefined)
    return key
  }
  const key = async (): Promise<CryptoKey | null> => {
    const found = await (known ??= findKey())
    // Without network now; the next request tries again.
    if (!found) known = undefined
    return found
  }
  return {
    author,
    hasKey: async () => (await key()) !== null,
    seal: async (entry) => {
      const found = await key()
      if (!found || entry.author !== author) throw new Error('no key for this entry')
      const outline = { id: entry.id, author }
      const iv = crypto.getRandomValues(new Uint8Array(IV_BYTES))
      const plain = new TextEncoder().encode(JSON.stringify(entry))
      const data = await crypto.subtle.encrypt({ name: 'AES-GCM', iv, additionalData: bound(outline) }, found, plain)
      return { entry: outline, locked: { iv, data } }
    },
    open: async ({ entry, locked }) => {
      if (entry.author !== author) return null
      if (!locked) return entry as OutboxEntry
      const found = await key()
      if (!found) return null
      try {
        const additionalData = bound(entry)
        const plain = await crypto.subtle.decrypt(
          { name: 'AES-GCM', iv: locked.iv, additionalData },
          found,
          locked.data,
        )
        return JSON.parse(new TextDecoder().decode(plain)) as OutboxEntry
      } catch {
        return null
      }
    },
    forget: () => storage.remove(author),
  }
}

const bound = ({ id, author }: EntryOutline): Uint8Array<ArrayBuffer> => new TextEncoder().encode(`${author} ${id}`)

/** The key of the session's user, from the studio's server; null for anybody but `author`, and signed out. */
export async function fetchKeyOf(author: string): Promise<Uint8Array<ArrayBuffer> | null> {
  const response = await fetch('/api/accounts/device-key', { cache: 'no-store', redirect: 'error' })
  if (!response.ok) return null
  const sent = (await response.json()) as { userId: string; key: string }
  return sent.userId === author ? Uint8Array.from(atob(sent.key), (char) => char.charCodeAt(0)) : null
}
