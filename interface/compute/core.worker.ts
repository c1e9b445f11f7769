import { expose } from 'comlink'
import { dispatch } from '@/core/operations/dispatch'

/** The core's `dispatch` in a thread of its own, so that a hand on the scale never waits for arithmetic. */
const api = { dispatch }
export type CoreWorker = typeof api

expose(api)
