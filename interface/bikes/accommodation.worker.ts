import { expose } from 'comlink'
import { accommodation } from '@/core/fleet/accommodation'

/** Who fits a type, in a thread of its own; `told` hears of every stature done. */
const api = { accommodation }
export type AccommodationWorker = typeof api

expose(api)
