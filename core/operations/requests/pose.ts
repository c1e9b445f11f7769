import { Type } from '@sinclair/typebox'
import { pointRef } from '../../base/conventions'
import { poseAt, riderSchema, type Pose } from '../../riders/kinematics/pose'
import { between, closed, type Plain } from '../../base/schema'

export const poseSchema = closed({
  rider: riderSchema,
  contact: closed({ seat: pointRef, grip: pointRef }),
  crankMm: between(0, 400),
  pedalSurfaceMm: between(-100, 200),
  crankDeg: Type.Array(Type.Number(), { maxItems: 3600 }),
})
export type PoseRequest = Plain<typeof poseSchema>
export type PoseResponse = Readonly<{ poses: Pose[] }>

/** `pose`: the rider on given contact points at each requested crank angle. */
export function pose({ rider, contact, crankMm, pedalSurfaceMm, crankDeg }: PoseRequest): PoseResponse {
  return { poses: crankDeg.map((deg) => poseAt(rider, contact, { crankMm, pedalSurfaceMm }, deg)) }
}
