import { Type } from '@sinclair/typebox'
import { bikeTypeRef } from '../bike/bike'
import { equipmentSchema, TYPE_FILE_FORMAT } from '../bike/equipment'
import { closed, type Plain } from '../schema'

/** The published file format of bike types; its `sheet` is what the code calls equipment. See `docs/schemas/`. */
export const typeFileSchema = closed({
  format: Type.Unsafe<typeof TYPE_FILE_FORMAT>({ const: TYPE_FILE_FORMAT }),
  formatVersion: Type.Unsafe<1>({ const: 1 }),
  types: Type.Array(closed({ bikeType: bikeTypeRef, sheet: equipmentSchema }), { minItems: 1, maxItems: 100 }),
})
export type TypeFile = Plain<typeof typeFileSchema>
