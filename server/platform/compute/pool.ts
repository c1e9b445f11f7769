import { existsSync } from 'node:fs'
import { join } from 'node:path'
import { Piscina } from 'piscina'
import { workOf } from '../../../core/operations/cost'
import { errorResponse, type ErrorResponse } from '../../../core/operations/errorResponse'

/**
 * From this much work on (thousands of row-samples) a request waits in the slow lane. An ordinary set-up is far
 * below.
 */
const HEAVY = 120
/** Longer than this no answer is worth waiting for. */
const TIMEOUT_MS = 30_000
/** Maximum queue length per lane; further requests get `busy`. */
const MAX_QUEUE_LENGTH = { quick: 400, slow: 20 } as const

type Lane = keyof typeof MAX_QUEUE_LENGTH
const lanes = new Map<Lane, Piscina>()

const workerFile = () => join(process.cwd(), process.env.NEXT_DIST ?? '.next', 'compute', 'worker.cjs')

/** Two lanes of one thread each, so that heavy requests never block ordinary ones; created on first use. */
function lane(name: Lane): Piscina {
  const existing = lanes.get(name)
  if (existing) return existing
  const made = new Piscina({
    filename: workerFile(),
    minThreads: 0,
    maxThreads: 1,
    idleTimeout: 60_000,
    workerData: { background: name === 'slow' },
  })
  lanes.set(name, made)
  return made
}

/**
 * One operation of the core in a thread of its own: the server goes on answering meanwhile. Faults come back as a
 * value; `busy` when too many wait or the answer took too long.
 */
export async function compute<A extends object = object>(
  operation: string,
  request: unknown,
  timeoutMs = TIMEOUT_MS,
): Promise<A | ErrorResponse> {
  // Seed and development have no build: the core answers in this thread. A production server never blocks on it.
  if (process.env.NODE_ENV !== 'production' && !existsSync(workerFile()))
    return (await import('../../../core/operations/dispatch')).dispatch(operation, request) as A
  const name = workOf(operation, request) > HEAVY ? 'slow' : 'quick'
  const pool = lane(name)
  if (pool.queueSize >= MAX_QUEUE_LENGTH[name])
    return errorResponse('busy', [
      { pointer: '', reason: 'too many are being answered at once; ask again in a moment' },
    ])
  try {
    return (await pool.run({ operation, request }, { signal: AbortSignal.timeout(timeoutMs) })) as A
  } catch (error) {
    if (!['AbortError', 'TimeoutError'].includes((error as Error).name)) throw error
    return errorResponse('busy', [
      { pointer: '', reason: `took longer than ${timeoutMs / 1000} s and was stopped; ask for fewer samples` },
    ])
  }
}

export async function closeCompute(): Promise<void> {
  await Promise.all([...lanes.values()].map((pool) => pool.destroy()))
  lanes.clear()
}
