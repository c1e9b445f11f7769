import { expose } from 'comlink'
import { accommodation } from '@/core/operations/requests/accommodation'

/** Who fits the types of a fleet, in a thread of its own. */
const api = { accommodation }
export type AccommodationWorker = typeof api

expose(api)
