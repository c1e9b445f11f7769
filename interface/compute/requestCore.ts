'use client'
import { wrap, type Remote } from 'comlink'
import type { CoreWorker } from './core.worker'

let worker: Remote<CoreWorker> | null = null

/** Any operation of the core, computed in the page's one core worker; a refusal comes back as a value. */
export function requestCore(operation: string, request: unknown): Promise<object> {
  worker ??= wrap<CoreWorker>(new Worker(new URL('./core.worker.ts', import.meta.url), { type: 'module' }))
  return worker.dispatch(operation, request)
}
