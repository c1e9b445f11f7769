import { asksNow } from '../../core/complaints/trial'
import { formatTrialOnFloor } from '../../core/messages/comfort'
import type { Scope } from '../accounts/scope'
import type { DbExecutor } from '../db/connection'
import { runningOnBikes, runningTrials, type Trial } from './trials'

/** What the floor says of trials: of a rider's numbers, and of a machine's saddle for whoever sits on it. */
export type TrialsOnFloor = Readonly<{
  /** A rider's own trial; the first of several. */
  of: (memberId: string) => Trial | undefined
  /** In a few words, for a tile. */
  words: (memberId: string, bikeId: string) => string[]
  /** Whether it is time to ask, or it went worse. */
  isDue: (memberId: string) => boolean
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
      ...saddles
        .filter((one) => one.bikeId === bikeId && one.memberId !== memberId)
        .map(() => 'saddle tilted on trial'),
    ],
    isDue: (memberId) => ofRider(memberId).some(asksNow),
  }
}
