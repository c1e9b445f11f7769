import { Type } from '@sinclair/typebox'
import { bikeTypeRef, type BikeType } from '../../bikes/bike/bike'
import { marksRef, type Marks } from '../../base/conventions'
import { REASON, type Issue } from '../../messages/words/issues'
import { formatLate, formatPlaceReason, formatUnplaced } from '../../messages/classes/planning'
import { betterBikes, placeRiders, type BetterBike } from '../../classes/planning/places'
import { tardyJobs, scheduleJobs, type Job, type Slot } from '../../classes/planning/queue'
import { minutesOf, NEEDS, type ClassRoom } from '../../classes/planning/room'
import { between, closed, oneOf, type Plain } from '../../base/schema'
import { bikeTypeIssues, marksIssues } from './bikeIssues'

const name = Type.String({ minLength: 1, maxLength: 80 })
const metres = between(-200, 200)
const minute = between(-100_000, 100_000)
const placeSchema = closed({ xM: metres, yM: metres })
const duration = Type.Optional(between(0.1, 240))

/** Maximum bikes, and riders, of a plan. */
export const MAX_PLACES = 120
/** Maximum types of a plan: one for each bike, and as many that riders have numbers for. */
export const MAX_TYPES = 2 * MAX_PLACES

/** Request of `plan`: a room, who comes, and the clock (conventions: docs of the wire format). */
export const planSchema = closed({
  types: Type.Record(Type.String(), bikeTypeRef, { maxProperties: MAX_TYPES }),
  bikes: Type.Array(
    closed({ id: name, type: name, xM: metres, yM: metres, headingDeg: between(-360, 360), inService: Type.Boolean() }),
    { maxItems: MAX_PLACES },
  ),
  room: closed({ instructor: placeSchema, screens: Type.Optional(Type.Array(placeSchema, { maxItems: 12 })) }),
  riders: Type.Array(
    closed({
      id: name,
      marksByType: Type.Record(Type.String(), marksRef, { maxProperties: MAX_TYPES }),
      setup: oneOf(NEEDS),
      arrivesMin: minute,
      lastBike: Type.Optional(name),
      row: Type.Optional(oneOf(['front', 'back'])),
      avoidTwist: Type.Optional(Type.Boolean()),
      pinnedBike: Type.Optional(name),
    }),
    { maxItems: MAX_PLACES },
  ),
  hands: Type.Integer({ minimum: 1, maximum: 20 }),
  doorsMin: minute,
  startMin: minute,
  minutes: Type.Optional(closed({ new: duration, translate: duration, recheck: duration })),
})
export type PlanRequest = Plain<typeof planSchema>

export type PlanResponse = Readonly<{
  pairs: readonly Readonly<{ rider: string; bike: string; cost: number; because: readonly string[] }>[]
  unplaced: readonly Readonly<{ rider: string; why: string }>[]
  /** The least possible for the pins given, in minutes of an instructor. */
  totalCost: number
  queue: readonly Slot[]
  /** Who is not ready by the start; `comeByMin` is left out where coming earlier does not help. */
  late: readonly Readonly<{ rider: string; comeByMin?: number; why: string }>[]
  /** Free bikes that would cost a rider less than the place in `pairs`, with nobody else moved. */
  better: readonly BetterBike[]
}>

/** `plan`: who sits where at the least cost, and who is made ready when and by whom. */
export function plan(request: PlanRequest): PlanResponse {
  const room = request as ClassRoom
  const { pairs, unplaced, totalCost } = placeRiders(room)
  const { hands, startMin, doorsMin } = room
  const arrives = new Map(room.riders.map(({ id, arrivesMin }) => [id, arrivesMin]))
  const jobs: Job[] = pairs
    .filter(({ need }) => need !== 'none')
    .map(({ rider, bike, need }) => ({
      rider,
      bike,
      minutes: minutesOf(room, need),
      fromMin: Math.max(doorsMin, arrives.get(rider)!),
    }))
  const deadline = { hands, startMin }
  const schedule = scheduleJobs(jobs, deadline)
  return {
    pairs: pairs.map(({ rider, bike, cost, because }) => ({
      rider,
      bike,
      cost,
      because: because.map(formatPlaceReason),
    })),
    unplaced: unplaced.map((one) => ({ rider: one.rider, why: formatUnplaced(one) })),
    totalCost,
    queue: [...schedule.slots].sort((a, b) => a.fromMin - b.fromMin || a.hand - b.hand),
    late: tardyJobs(jobs, schedule, deadline, doorsMin).map((one) => ({
      rider: one.rider,
      ...(one.comeByMin !== null && { comeByMin: one.comeByMin }),
      why: formatLate(one, startMin),
    })),
    better: betterBikes(room, pairs),
  }
}

/** A type's name as part of a JSON pointer. */
const inPointer = (key: string): string => key.replaceAll('~', '~0').replaceAll('/', '~1')

export function planIssues({ types, bikes, riders, doorsMin, startMin }: PlanRequest): Issue[] {
  const typesById = types as Readonly<Record<string, BikeType>>
  const ofTypes = Object.entries(typesById).flatMap(([key, type]) => bikeTypeIssues(type, `/types/${inPointer(key)}`))
  const twice = (all: readonly Readonly<{ id: string }>[], list: string) =>
    all.flatMap(({ id }, i) =>
      all.findIndex((one) => one.id === id) < i ? [{ pointer: `/${list}/${i}/id`, reason: REASON.idTwice(id) }] : [],
    )
  const unknownType = (type: string, pointer: string): Issue[] =>
    Object.hasOwn(typesById, type) ? [] : [{ pointer, reason: REASON.noSuchType(type, Object.keys(typesById)) }]
  return [
    ...ofTypes,
    ...twice(bikes, 'bikes'),
    ...twice(riders, 'riders'),
    ...bikes.flatMap(({ type }, i) => unknownType(type, `/bikes/${i}/type`)),
    ...riders.flatMap(({ marksByType }, i) =>
      Object.entries(marksByType as Readonly<Record<string, Marks>>).flatMap(([type, marks]) => {
        const pointer = `/riders/${i}/marksByType/${inPointer(type)}`
        const unknown = unknownType(type, pointer)
        return unknown.length > 0 || ofTypes.length > 0 ? unknown : marksIssues(typesById[type], marks, pointer)
      }),
    ),
    ...(startMin < doorsMin ? [{ pointer: '/startMin', reason: REASON.startsBeforeDoors() }] : []),
  ]
}
