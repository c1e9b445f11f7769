import type { BikeType } from '../../bikes/bike/bike'
import type { Marks } from '../../base/conventions'
import type { Place } from './sightLine'

/** A bike on the floor. */
export type FloorBike = Place & Readonly<{ id: string; type: string; headingDeg: number; inService: boolean }>

/** What a rider needs before the class: nothing, a second look, numbers carried over, or a first set-up. */
export const NEEDS = ['none', 'translate', 'recheck', 'new'] as const
export type Need = (typeof NEEDS)[number]

export type FloorRider = Readonly<{
  id: string
  marksByType: Readonly<Record<string, Marks>>
  setup: Need
  arrivesMin: number
  lastBike?: string
  row?: 'front' | 'back'
  /** Has notes of neck or hips: should not sit turned. */
  avoidTwist?: boolean
  pinnedBike?: string
}>

/** What a class is planned from. Minutes count from any common zero. */
export type ClassRoom = Readonly<{
  types: Readonly<Record<string, BikeType>>
  bikes: readonly FloorBike[]
  room: Readonly<{ instructor: Place; screens?: readonly Place[] }>
  riders: readonly FloorRider[]
  hands: number
  doorsMin: number
  startMin: number
  minutes?: Readonly<Partial<Record<Exclude<Need, 'none'>, number>>>
}>

/** Minutes of each kind unless the studio sets others (common practice, no source). */
export const USUAL_MINUTES = Object.freeze({ none: 0, translate: 1.5, recheck: 2, new: 6 })

export const minutesOf = ({ minutes }: Pick<ClassRoom, 'minutes'>, need: Need): number =>
  need === 'none' ? 0 : (minutes?.[need] ?? USUAL_MINUTES[need])

/** What a rider needs on a bike of this type: numbers of another type are carried over, without any it is a first. */
export function needOn(rider: FloorRider, type: string): Need {
  const { marksByType, setup } = rider
  if (setup === 'new' || Object.keys(marksByType).length === 0) return 'new'
  return setup === 'none' && !Object.hasOwn(marksByType, type) ? 'translate' : setup
}
