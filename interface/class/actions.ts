'use server'
import { formatActionRefusal, type ActionRefusal } from '@/core/messages/actions'
import type { Block } from '@/core/classPlan/blocks'
import { formatMovedRiders } from '@/core/messages/planning'
import { shapeIssues } from '@/core/operations/dispatch'
import { AFTER_KINDS, FOLLOW_UPS, type AfterKind, type FollowUpState } from '@/core/watch/afterList'
import { signNamed } from '@/core/watch/signs'
import type { Permission } from '@/server/accounts/can'
import { authorize, type CurrentUser } from '@/server/accounts/session'
import { findBike } from '@/server/bikes/bikes'
import * as assignments from '@/server/classes/assignments'
import * as classes from '@/server/classes/classes'
import { followUp } from '@/server/classes/followUps'
import { publishClassEvent } from '@/server/classes/live'
import { replanClass, restorePlaces, type PlacesUndo, type ReplanOptions } from '@/server/classes/replan'
import { readPlacesUndo } from '@/server/classes/placesUndo'
import { bookRider, changeRider, listRoster, type RosterChange } from '@/server/classes/roster'
import { setCueText } from '@/server/classes/watch'
import { database, type DbExecutor } from '@/server/db/connection'
import { isId } from '@/server/ids'
import type { ActionResult } from '../shared/actionResult'

type Refused = Extract<ActionResult, { outcome: 'refused' }>
const refused = (refusal: ActionRefusal): Refused => ({ outcome: 'refused', say: formatActionRefusal(refusal) })

type InClass = Readonly<{ person: CurrentUser; ofClass: classes.StudioClass }>

/** Who acts and on which class, where both may be; else why not. */
async function inClass(permission: Permission, classId: string): Promise<InClass | Refused> {
  const person = await authorize(permission)
  if (!person) return refused({ code: 'notAllowed' })
  const ofClass = isId(classId) ? await classes.findClass(database(), person, classId) : null
  return ofClass ? { person, ofClass } : refused({ code: 'noSuchClass' })
}

const isRefused = (found: InClass | Refused): found is Refused => 'outcome' in found

/** Says who sits on a bike in a class; null frees it. Sent again under the same id it changes nothing. */
export async function assignBike(
  id: string,
  classId: string,
  bikeId: string,
  memberId: string | null,
): Promise<ActionResult<Partial<Replanned>>> {
  const found = await inClass('assignBikes', classId)
  if (isRefused(found)) return found
  const db = database()
  const bike = isId(id) && isId(bikeId) ? await findBike(db, found.person, bikeId) : null
  if (!bike) return refused({ code: 'noSuchBike' })
  if (bike.openFaults > 0 && memberId !== null) return refused({ code: 'bikeOutOfUse', number: bike.number })
  if (memberId !== null && !isId(memberId)) return refused({ code: 'noSuchMember' })
  const now = new Date()
  // In a class somebody put on a bike by hand is here, and stays there; whoever sat there is placed anew.
  if (memberId !== null && found.ofClass.openDay === null)
    return changeAndReplan(found, [memberId], {
      kept: 'all',
      change: async (tx) => {
        const booked = { classId, memberId, state: 'here', comesMinBefore: minutesBefore(found.ofClass, now) } as const
        await freePins(tx, found, bikeId)
        if (!(await bookRider(tx, found.person, booked, now))) return { code: 'noSuchMember' }
        await changeRider(tx, found.person, classId, [memberId], { pinnedBikeId: bikeId })
        return null
      },
    })
  const { outcome } = await assignments.assignBike(db, found.person, { id, classId, bikeId, memberId }, now)
  if (outcome !== 'kept') return refused({ code: outcome === 'gone' ? 'noSuchMember' : 'assignmentTaken' })
  publishClassEvent(classId, null)
  return { outcome: 'kept' }
}

const minutesBefore = ({ startsAt }: classes.StudioClass, now: Date): number =>
  Math.max(-600, Math.min(600, Math.round((startsAt.getTime() - now.getTime()) / 60_000)))

/** Cost of a change of the places above that of before, who else was moved by it in words, and what takes it back. */
export type Replanned = Readonly<{ extraMin: number | null; others: string; undo: PlacesUndo }>

/** Changes a class and places its riders; `subjects`: members whom the change is about. */
async function changeAndReplan(
  { person, ofClass }: InClass,
  subjects: readonly (string | null)[],
  options: ReplanOptions<ActionRefusal>,
): Promise<ActionResult<Replanned>> {
  const result = await replanClass(database(), person, ofClass.id, new Date(), options)
  switch (result.outcome) {
    case 'kept': {
      if (!options.preview) publishClassEvent(ofClass.id, null)
      const others = result.moved.filter(({ memberId }) => !subjects.includes(memberId))
      return {
        outcome: 'kept',
        extraMin: result.extraMin,
        others: formatMovedRiders(others, options.preview ?? false),
        undo: result.undo,
      }
    }
    case 'refused':
      return refused(result.why)
    default:
      return refused({ code: result.outcome === 'gone' ? 'noSuchClass' : 'planBusy' })
  }
}

/** Places everybody of a class again, around who is here and who is pinned; with `preview` nothing is written. */
export async function placeEverybody(classId: string, preview = false): Promise<ActionResult<Replanned>> {
  const found = await inClass('planClasses', classId)
  return isRefused(found) ? found : changeAndReplan(found, [], { kept: 'here', preview: preview === true })
}

/** Takes a change of the places back; refused where somebody changed them since. */
export async function undoPlaces(classId: string, undo: PlacesUndo): Promise<ActionResult> {
  const found = await inClass('assignBikes', classId)
  if (isRefused(found)) return found
  const read = readPlacesUndo(undo)
  if (!read) return refused({ code: 'malformed' })
  const outcome = await restorePlaces(database(), found.person, classId, read, new Date())
  if (outcome !== 'kept') return refused({ code: outcome === 'gone' ? 'noSuchClass' : 'placesChanged' })
  publishClassEvent(classId, null)
  return { outcome: 'kept' }
}

/** Adds somebody to a class: booked, so many minutes before its start, or `here` now. Nobody who has a seat moves. */
export async function addRider(
  classId: string,
  memberId: string,
  how: 'here' | number,
): Promise<ActionResult<Replanned & Readonly<{ number: number | null }>>> {
  const found = await inClass('assignBikes', classId)
  if (isRefused(found)) return found
  if (!isId(memberId)) return refused({ code: 'noSuchMember' })
  if (how !== 'here' && !(Number.isInteger(how) && Math.abs(how) <= 600)) return refused({ code: 'malformed' })
  const db = database()
  const now = new Date()
  const state = how === 'here' ? 'here' : 'booked'
  const comesMinBefore = how === 'here' ? minutesBefore(found.ofClass, now) : how
  const done = await changeAndReplan(found, [memberId], {
    kept: 'all',
    change: async (tx) =>
      (await bookRider(tx, found.person, { classId, memberId, state, comesMinBefore }, now))
        ? null
        : { code: 'noSuchMember' },
  })
  if (done.outcome !== 'kept') return done
  const seat = (await assignments.listAssignments(db, found.person, classId)).find((one) => one.memberId === memberId)
  const bike = seat ? await findBike(db, found.person, seat.bikeId) : null
  return { ...done, number: bike?.number ?? null }
}

/** Changes how somebody comes, or where they sit; the places are worked out anew around it. */
export async function changeRiderOf(
  classId: string,
  memberId: string,
  change: RosterChange,
): Promise<ActionResult<Replanned>> {
  const found = await inClass('assignBikes', classId)
  if (isRefused(found)) return found
  const { state, comesMinBefore, rowWish, pinnedBikeId } = (change ?? {}) as Partial<RosterChange>
  const db = database()
  const wrong =
    !isId(memberId) ||
    (state !== undefined && !['booked', 'here', 'cancelled'].includes(state)) ||
    (comesMinBefore !== undefined && !(Number.isInteger(comesMinBefore) && Math.abs(comesMinBefore) <= 600)) ||
    (rowWish !== undefined && rowWish !== null && rowWish !== 'front' && rowWish !== 'back')
  if (wrong) return refused({ code: 'malformed' })
  if (pinnedBikeId) {
    const bike = isId(pinnedBikeId) ? await findBike(db, found.person, pinnedBikeId) : null
    if (!bike) return refused({ code: 'noSuchBike' })
    if (bike.openFaults > 0) return refused({ code: 'bikeOutOfUse', number: bike.number })
  }
  const kept: RosterChange = {
    ...(state !== undefined && { state }),
    ...(comesMinBefore !== undefined && { comesMinBefore }),
    ...(rowWish !== undefined && { rowWish }),
    ...(pinnedBikeId !== undefined && { pinnedBikeId }),
  }
  return changeAndReplan(found, [memberId], {
    change: async (tx) => {
      if (pinnedBikeId) await freePins(tx, found, pinnedBikeId)
      await changeRider(tx, found.person, classId, [memberId], kept)
      return null
    },
  })
}

/** Whoever was pinned to a bike before is placed anew. */
async function freePins(tx: DbExecutor, { person, ofClass }: InClass, bikeId: string): Promise<void> {
  const roster = await listRoster(tx, person, ofClass.id)
  const before = roster.filter(({ pinnedBikeId }) => pinnedBikeId === bikeId).map(({ memberId }) => memberId)
  await changeRider(tx, person, ofClass.id, before, { pinnedBikeId: null })
}

/** Two riders change places and stay there. */
export async function swapRiders(classId: string, first: string, second: string): Promise<ActionResult<Replanned>> {
  const found = await inClass('assignBikes', classId)
  if (isRefused(found)) return found
  return changeAndReplan(found, [first, second], {
    change: async (tx) => {
      const seats = await assignments.listAssignments(tx, found.person, classId)
      const [a, b] = [first, second].map((id) => seats.find(({ memberId }) => memberId === id)?.bikeId)
      if (!a || !b) return { code: 'noSuchMember' }
      for (const bikeId of [a, b]) await freePins(tx, found, bikeId)
      await changeRider(tx, found.person, classId, [first], { pinnedBikeId: b })
      await changeRider(tx, found.person, classId, [second], { pinnedBikeId: a })
      return null
    },
  })
}

/** Leaves riders to the warm-up, where they stay marked until looked at; or takes them off it again. */
export async function leaveToWarmUp(
  classId: string,
  memberIds: readonly string[],
  warmUp: boolean,
): Promise<ActionResult> {
  const found = await inClass('planClasses', classId)
  if (isRefused(found)) return found
  if (!Array.isArray(memberIds) || !memberIds.every(isId)) return refused({ code: 'malformed' })
  await changeRider(database(), found.person, classId, memberIds, { warmUp: warmUp === true })
  publishClassEvent(classId, null)
  return { outcome: 'kept' }
}

/** Hands and doors of a class; the places do not change, the queue does. */
export async function changeHands(classId: string, hands: number, doorsMin: number): Promise<ActionResult> {
  const found = await inClass('planClasses', classId)
  if (isRefused(found)) return found
  const whole = (value: unknown, low: number, high: number) =>
    Number.isInteger(value) && (value as number) >= low && (value as number) <= high
  if (!whole(hands, 1, 20) || !whole(doorsMin, 0, 180)) return refused({ code: 'malformed' })
  await classes.changeClass(database(), found.person, classId, { hands, doorsMin })
  publishClassEvent(classId, null)
  return { outcome: 'kept' }
}

/** Keeps the blocks of a class; empty takes its plan away. */
export async function saveBlocks(classId: string, blocks: readonly Block[]): Promise<ActionResult> {
  const found = await inClass('planClasses', classId)
  if (isRefused(found)) return found
  if (shapeIssues('blocks', blocks).length > 0) return refused({ code: 'badBlocks' })
  await classes.changeClass(database(), found.person, classId, { blocks: blocks.length > 0 ? blocks : null })
  publishClassEvent(classId, null)
  return { outcome: 'kept' }
}

/** Words a cue anew for the whole studio; null goes back to the product's words. */
export async function changeCue(sign: string, cue: string | null): Promise<ActionResult> {
  const person = await authorize('planClasses')
  if (!person) return refused({ code: 'notAllowed' })
  if (!signNamed(sign)) return refused({ code: 'malformed' })
  const words = typeof cue === 'string' ? cue.trim() : null
  if (words !== null && words.length > 200) return refused({ code: 'cueTooLong' })
  await setCueText(database(), person, sign, words || null, new Date())
  return { outcome: 'kept' }
}

/** What becomes of a line of the list after a class; with state null it is to be seen to again. */
export async function followUpLine(
  classId: string,
  memberId: string,
  kind: AfterKind,
  said: Readonly<{ state: FollowUpState | null; handedTo: string | null; said: string }>,
): Promise<ActionResult> {
  const found = await inClass('writeNotes', classId)
  if (isRefused(found)) return found
  const { state, handedTo, said: words } = said ?? {}
  const isState = state === null || FOLLOW_UPS.includes(state)
  if (!isId(memberId) || !AFTER_KINDS.includes(kind) || !isState || typeof words !== 'string')
    return refused({ code: 'malformed' })
  if (handedTo !== null && !isId(handedTo)) return refused({ code: 'noSuchColleague' })
  const content = { state, handedTo, said: words }
  const { outcome } = await followUp(database(), found.person, { classId, memberId, kind }, content, new Date())
  return outcome === 'kept' ? { outcome } : refused({ code: state === 'handed' ? 'noSuchColleague' : 'noSuchMember' })
}
