import { setPriority } from 'node:os'
import { workerData } from 'node:worker_threads'
import { dispatch } from '../../../core/operations/dispatch'

/** What piscina hands a worker: its own port data, then what the pool was made with. */
const { background } = (Array.isArray(workerData) ? workerData[1] : workerData) as { background: boolean }

// On Linux this is the calling thread's own priority: long arithmetic has a lower priority than pages.
if (background) setPriority(10)

/** One operation of the core, in a thread of the pool. */
export default function answer({ operation, request }: { operation: string; request: unknown }): object {
  return dispatch(operation, request)
}
