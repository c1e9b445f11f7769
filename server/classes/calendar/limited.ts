import { createContext, Script } from 'node:vm'

const sandbox = createContext({ work: null as (() => unknown) | null })
const call = new Script('work()')

/**
 * Runs a synchronous function with a time limit in ms and returns its result, or null after the limit. V8 interrupts
 * the function even in a loop that never yields. Rethrows exceptions. The function must not leave state half changed.
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
