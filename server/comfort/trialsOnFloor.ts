import { needsRating } from '../../core/comfort/changes/trial'
import { formatTrialOnFloor, SADDLE_ON_TRIAL } from '../../core/messages/comfort/comfort'
import type { Scope } from '../platform/accounts/scope'
import type { DbExecutor } from '../platform/db/connection'
import { runningOnBikes, runningTrials, type Trial } from './trials'

/** Trials as shown on the floor: of a rider's numbers, and of a machine's saddle for the rider on it. */
export type TrialsOnFloor = Readonly<{
  /** A rider's own trial; the first of several. */
  of: (memberId: string) => Trial | undefined
  /** In a few words, for a tile. */
  words: (memberId: string, bikeId: string) => string[]
  /** Whether a rating is due, or it got worse. */
  isDue: (memberId: string) => boolean
  /** Whether the rider has a trial of their own. */
  isRunning: (memberId: string) => boolean
}>

export async function trialsOnFloor(
  db: DbExecutor,
  scope: Scope,
  memberIds: readonly string[],
  bikeIds: readonly string[],
  now: Date,
): Promise<TrialsOnFloor> {
  const [own, saddles] = [await runningTrials(db, scope, memberIds, now), await runningOnBikes(db, scope, bikeIds, now)]
  const ofRider = (memberId: string) => own.filter((one) => one.memberId === memberId)
  return {
    of: (memberId) => ofRider(memberId).at(0),
    words: (memberId, bikeId) => [
      ...ofRider(memberId).map(formatTrialOnFloor),
      ...saddles.filter((one) => one.bikeId === bikeId && one.memberId !== memberId).map(() => SADDLE_ON_TRIAL),
    ],
    isRunning: (memberId) => ofRider(memberId).length > 0,
    isDue: (memberId) => ofRider(memberId).some(needsRating),
  }
}
