const KEY = 'yielding-saddle-last-delivery'

/** Remembers on the device, for all its tabs, that the server took an entry at `atMs` (device clock). */
export function recordDelivery(storage: Storage | undefined, atMs: number): void {
  try {
    storage?.setItem(KEY, String(atMs))
  } catch {
    // A device whose storage takes nothing shows such an entry at the next load.
  }
}

/** Whether the server took an entry of this device at `sinceMs` (device clock) or later. */
export function deliveredSince(storage: Storage | undefined, sinceMs: number): boolean {
  try {
    return Number(storage?.getItem(KEY) ?? -Infinity) >= sinceMs
  } catch {
    return false
  }
}
