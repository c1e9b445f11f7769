// One for the process: the framework may load this module once for actions and once for routes.
const holder = globalThis as { sessionsEnded?: EventTarget }
const target = (holder.sessionsEnded ??= new EventTarget())

/** Publishes the end of sessions, within a transaction that may still be open. */
export const announceSessionsEnded = (): boolean => target.dispatchEvent(new Event('ended'))

/** Calls back each time sessions are being ended; returns what stops that. */
export function onSessionsEnded(listener: () => void): () => void {
  target.addEventListener('ended', listener)
  return () => target.removeEventListener('ended', listener)
}
