import { Type } from '@sinclair/typebox'
import { shapeIssues } from '../../core/operations/dispatch'
import type { RoomPlan, FloorPosition } from '../../core/classes/planning/roomPlan'
import { closed } from '../../core/base/schema'
import * as rooms from '../classes/rooms/rooms'
import { checkedInRun, defineCommand, idSchema, SAVED, refused, typedText } from './defineCommand'

const MAX_BIKES = 200
const MAX_NAME_LENGTH = 80

const placeSchema = Type.Unsafe<FloorPosition & Readonly<{ bikeId: string }>>({
  type: 'object',
  required: ['bikeId'],
  properties: { bikeId: idSchema },
})

/** Writes a room's plan with every bike in it. */
export const saveRoom = defineCommand({
  name: 'rooms.saveRoom',
  permission: 'manageBikes',
  schema: closed({
    roomId: idSchema,
    name: typedText,
    plan: checkedInRun<RoomPlan>(),
    places: Type.Array(placeSchema, { maxItems: MAX_BIKES }),
  }),
  run: async (tx, scope, { roomId, name, plan, places }, { now }) => {
    const named = name.trim()
    if (named === '' || named.length > MAX_NAME_LENGTH || !plan) return refused({ code: 'malformed' })
    if (shapeIssues('roomPlan', plan).length > 0) return refused({ code: 'malformed' })
    const placed = places.map(({ bikeId, xM, yM, headingDeg }) => ({ bikeId, xM, yM, headingDeg }))
    const isWrong = placed.some(({ bikeId: _, ...place }) => shapeIssues('stand', place).length > 0)
    if (isWrong) return refused({ code: 'malformed' })
    const { outcome } = await rooms.saveRoom(tx, scope, { id: roomId, name: named, plan, places: placed }, now)
    if (outcome === 'nameTaken') return refused({ code: 'roomNameTaken' })
    return outcome === 'gone' ? refused({ code: 'noSuchBike' }) : SAVED
  },
})

/** Removes a room that no class ever used. */
export const removeRoom = defineCommand({
  name: 'rooms.removeRoom',
  permission: 'manageBikes',
  schema: closed({ roomId: idSchema }),
  run: async (tx, scope, { roomId }) => {
    const { outcome } = await rooms.deleteRoom(tx, scope, roomId)
    return outcome === 'kept' ? SAVED : refused({ code: outcome === 'inUse' ? 'roomInUse' : 'noSuchRoom' })
  },
})
