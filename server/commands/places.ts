import { Type } from '@sinclair/typebox'
import { formatMovedRiders } from '../../core/messages/classes/planning'
import type { Refusal } from '../../core/messages/refusals'
import { closed, oneOf } from '../../core/base/schema'
import type { Scope } from '../platform/accounts/scope'
import { findBike } from '../bikes/bikes'
import * as assignments from '../classes/assignments'
import { findClass, type StudioClass } from '../classes/classes'
import { publishClassEvent } from '../classes/live'
import { readPlacesUndo } from '../classes/placesUndo'
import { replanClass, restorePlaces, type PlacesUndo, type ReplanOptions } from '../classes/replan'
import { bookRider, changeRider, listRoster, type RosterChange } from '../classes/roster'
import type { Database, DbExecutor } from '../platform/db/connection'
import {
  checkedInRun,
  defineCommand,
  defineQuery,
  idOrNull,
  idSchema,
  SAVED,
  refused,
  type CommandOutcome,
} from './defineCommand'

/** A rider comes at most so many minutes before or after the start. */
const MAX_COMES_MIN = 600
const MAX_RIDERS = 400
const comesMin = Type.Integer({ minimum: -MAX_COMES_MIN, maximum: MAX_COMES_MIN })
const noSuchClass = refused({ code: 'noSuchClass' })

const minutesBefore = ({ startsAt }: StudioClass, now: Date): number =>
  Math.max(-MAX_COMES_MIN, Math.min(MAX_COMES_MIN, Math.round((startsAt.getTime() - now.getTime()) / 60_000)))

/** Cost of a change of the places above that of before, who else was moved by it in words, and what undoes it. */
export type Replanned = Readonly<{ extraMin: number | null; others: string; undo: PlacesUndo }>

/** Changes a class and places its riders; `subjects`: members whom the change is about. */
async function changeAndReplan(
  db: Database,
  scope: Scope,
  classId: string,
  subjects: readonly string[],
  now: Date,
  options: ReplanOptions<Refusal>,
): Promise<CommandOutcome<Replanned>> {
  const result = await replanClass(db, scope, classId, now, options)
  switch (result.outcome) {
    case 'kept': {
      if (!options.preview) publishClassEvent(classId, null)
      const others = result.moved.filter(({ memberId }) => !subjects.includes(memberId))
      const words = formatMovedRiders(others, options.preview ?? false)
      return { outcome: 'kept', extraMin: result.extraMin, others: words, undo: result.undo }
    }
    case 'refused':
      return refused(result.why)
    default:
      return refused({ code: result.outcome === 'gone' ? 'noSuchClass' : 'planBusy' })
  }
}

/** Assigns a bike in a class; `memberId` null frees it. */
export const assignBike = defineCommand({
  name: 'places.assignBike',
  permission: 'assignBikes',
  ownsId: true,
  inTransaction: false,
  schema: closed({ classId: idSchema, bikeId: idSchema, memberId: idOrNull }),
  run: async (db, scope, { classId, bikeId, memberId }, { id, now }): Promise<CommandOutcome<Partial<Replanned>>> => {
    const ofClass = await findClass(db, scope, classId)
    if (!ofClass) return noSuchClass
    const bike = await findBike(db, scope, bikeId)
    if (!bike) return refused({ code: 'noSuchBike' })
    if (bike.openFaults > 0 && memberId !== null) return refused({ code: 'bikeOutOfUse', number: bike.number })
    // In a class a rider put on a bike by hand is here, and stays there; the rider who sat there is placed again.
    if (memberId !== null && ofClass.openDay === null)
      return changeAndReplan(db, scope, classId, [memberId], now, {
        fixedSeats: 'all',
        change: async (tx) => {
          const booked = { classId, memberId, state: 'here', comesMinBefore: minutesBefore(ofClass, now) } as const
          await freePins(tx, scope, classId, bikeId)
          if (!(await bookRider(tx, scope, booked, now))) return { code: 'noSuchMember' }
          await changeRider(tx, scope, classId, [memberId], { pinnedBikeId: bikeId })
          return null
        },
      })
    const { outcome } = await assignments.assignBike(db, scope, { id, classId, bikeId, memberId }, now)
    if (outcome !== 'kept') return refused({ code: outcome === 'gone' ? 'noSuchMember' : 'assignmentTaken' })
    publishClassEvent(classId, null)
    return SAVED
  },
})

/** Places everybody of a class again, around who is here and who is pinned. */
export const placeEverybody = defineCommand({
  name: 'places.placeEverybody',
  permission: 'planClasses',
  inTransaction: false,
  schema: closed({ classId: idSchema }),
  run: (db, scope, { classId }, { now }) => changeAndReplan(db, scope, classId, [], now, { fixedSeats: 'here' }),
})

/** What `placeEverybody` would change. */
export const previewPlaces = defineQuery({
  name: 'places.previewPlaces',
  permission: 'planClasses',
  schema: closed({ classId: idSchema }),
  run: async (db, scope, { classId }, now) => {
    const found = await changeAndReplan(db, scope, classId, [], now, { fixedSeats: 'here', preview: true })
    return found.outcome === 'refused' ? found : { ...found, outcome: 'found' }
  },
})

/** Takes a change of the places back; refused where they were changed since. */
export const undoPlaces = defineCommand({
  name: 'places.undoPlaces',
  permission: 'assignBikes',
  schema: closed({ classId: idSchema, undo: checkedInRun<PlacesUndo>() }),
  run: async (tx, scope, { classId, undo }, { now, afterCommit }) => {
    const read = readPlacesUndo(undo)
    if (!read) return refused({ code: 'malformed' })
    const outcome = await restorePlaces(tx, scope, classId, read, now)
    if (outcome !== 'kept') return refused({ code: outcome === 'gone' ? 'noSuchClass' : 'placesChanged' })
    afterCommit(() => publishClassEvent(classId, null))
    return SAVED
  },
})

/** Adds a rider to a class: booked, so many minutes before its start, or `here` now. No rider with a seat moves. */
export const addRider = defineCommand({
  name: 'places.addRider',
  permission: 'assignBikes',
  inTransaction: false,
  schema: closed({
    classId: idSchema,
    memberId: idSchema,
    how: Type.Unsafe<'here' | number>({ anyOf: [{ const: 'here' }, comesMin] }),
  }),
  run: async (db, scope, { classId, memberId, how }, { now }) => {
    const ofClass = await findClass(db, scope, classId)
    if (!ofClass) return noSuchClass
    const state = how === 'here' ? 'here' : 'booked'
    const comesMinBefore = how === 'here' ? minutesBefore(ofClass, now) : how
    const done = await changeAndReplan(db, scope, classId, [memberId], now, {
      fixedSeats: 'all',
      change: async (tx) =>
        (await bookRider(tx, scope, { classId, memberId, state, comesMinBefore }, now))
          ? null
          : { code: 'noSuchMember' },
    })
    if (done.outcome === 'refused') return done
    const seat = (await assignments.listAssignments(db, scope, classId)).find((one) => one.memberId === memberId)
    const bike = seat ? await findBike(db, scope, seat.bikeId) : null
    return { ...done, number: bike?.number ?? null }
  },
})

/** Changes how a rider comes, or where they sit; the places are computed again around it. */
export const changeRiderOf = defineCommand({
  name: 'places.changeRider',
  permission: 'assignBikes',
  inTransaction: false,
  schema: closed({
    classId: idSchema,
    memberId: idSchema,
    change: closed({
      state: Type.Optional(oneOf(['booked', 'here', 'cancelled'])),
      comesMinBefore: Type.Optional(comesMin),
      rowWish: Type.Optional(Type.Unsafe<RosterChange['rowWish']>({ enum: ['front', 'back', null] })),
      pinnedBikeId: Type.Optional(idOrNull),
    }),
  }),
  run: async (db, scope, { classId, memberId, change }, { now }) => {
    if (!(await findClass(db, scope, classId))) return noSuchClass
    const { pinnedBikeId } = change
    if (pinnedBikeId) {
      const bike = await findBike(db, scope, pinnedBikeId)
      if (!bike) return refused({ code: 'noSuchBike' })
      if (bike.openFaults > 0) return refused({ code: 'bikeOutOfUse', number: bike.number })
    }
    return changeAndReplan(db, scope, classId, [memberId], now, {
      change: async (tx) => {
        if (pinnedBikeId) await freePins(tx, scope, classId, pinnedBikeId)
        await changeRider(tx, scope, classId, [memberId], change)
        return null
      },
    })
  },
})

/** Unpins a bike: the rider pinned to it is placed again. */
async function freePins(tx: DbExecutor, scope: Scope, classId: string, bikeId: string): Promise<void> {
  const roster = await listRoster(tx, scope, classId)
  const before = roster.filter(({ pinnedBikeId }) => pinnedBikeId === bikeId).map(({ memberId }) => memberId)
  await changeRider(tx, scope, classId, before, { pinnedBikeId: null })
}

/** Two riders exchange places and stay there. */
export const swapRiders = defineCommand({
  name: 'places.swapRiders',
  permission: 'assignBikes',
  inTransaction: false,
  schema: closed({ classId: idSchema, first: idSchema, second: idSchema }),
  run: (db, scope, { classId, first, second }, { now }) =>
    changeAndReplan(db, scope, classId, [first, second], now, {
      change: async (tx) => {
        const seats = await assignments.listAssignments(tx, scope, classId)
        const [a, b] = [first, second].map((id) => seats.find(({ memberId }) => memberId === id)?.bikeId)
        if (!a || !b) return { code: 'noSuchMember' }
        for (const bikeId of [a, b]) await freePins(tx, scope, classId, bikeId)
        await changeRider(tx, scope, classId, [first], { pinnedBikeId: b })
        await changeRider(tx, scope, classId, [second], { pinnedBikeId: a })
        return null
      },
    }),
})

/** Leaves riders to the warm-up, where they stay marked until looked at; or takes them off it again. */
export const leaveToWarmUp = defineCommand({
  name: 'places.leaveToWarmUp',
  permission: 'planClasses',
  schema: closed({
    classId: idSchema,
    memberIds: Type.Array(idSchema, { maxItems: MAX_RIDERS }),
    warmUp: Type.Boolean(),
  }),
  run: async (tx, scope, { classId, memberIds, warmUp }, { afterCommit }) => {
    if (!(await findClass(tx, scope, classId))) return noSuchClass
    await changeRider(tx, scope, classId, memberIds, { warmUp })
    afterCommit(() => publishClassEvent(classId, null))
    return SAVED
  },
})
