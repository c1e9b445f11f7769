import { expose } from 'comlink'
import { whoFits } from '@/core/fleet/whoFits'

/** Who fits a type, in a thread of its own; `told` hears of every stature done. */
const door = { whoFits }
export type WhoFitsDoor = typeof door

expose(door)
