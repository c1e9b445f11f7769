/** A request that ended in a fault: when, which page or route, and the kind of error; nothing of its content. */
export type RecentError = Readonly<{ atMs: number; route: string; kind: string }>

const MOST = 30
// One list for the process: the framework loads this module once for its hooks and once for pages.
const holder = globalThis as { recentErrors?: RecentError[] }

/** Notes a fault; only the latest ones are there. `route`: its pattern, such as `/riders/[id]`. */
export function noteError(route: string, error: unknown, atMs: number): void {
  const kind = error instanceof Error ? error.name : typeof error
  holder.recentErrors = [{ atMs, route, kind }, ...(holder.recentErrors ?? [])].slice(0, MOST)
}

/** The latest faults since the server started, the newest first. */
export const recentErrors = (): readonly RecentError[] => holder.recentErrors ?? []
