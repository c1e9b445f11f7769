import { expose } from 'comlink'
import { run } from '@/core/operations/operations'

/** The core's door in a thread of its own, so that a hand on the scale never waits for arithmetic. */
const door = { run }
export type FitDoor = typeof door

expose(door)
