import { createContext, Script } from 'node:vm'

const sandbox = createContext({ work: null as (() => unknown) | null })
const call = new Script('work()')

/**
 * The result of some work that is stopped when it takes longer than `ms`, also where it never yields; null then. What
 * it throws is thrown. For work that leaves nothing half done.
 */
export function within<T>(ms: number, work: () => T): Readonly<{ result: T }> | null {
  sandbox.work = work
  try {
    return { result: call.runInContext(sandbox, { timeout: Math.max(1, Math.ceil(ms)) }) as T }
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code === 'ERR_SCRIPT_EXECUTION_TIMEOUT') return null
    throw error
  } finally {
    sandbox.work = null
  }
}
