import { Type } from '@sinclair/typebox'
import { bikeTypeRef } from '../bikes/bike/bike'
import { equipmentSchema, TYPE_FILE_FORMAT } from '../bikes/bike/equipment'
import { perAxis } from '../base/conventions'
import { between, closed, type Plain } from '../base/schema'

/** What a tape found about a type, so that it arrives calibrated where it is brought in. */
const calibrationSchema = closed({
  rmsMm: between(0, 1000),
  readings: Type.Integer({ minimum: 1, maximum: 100_000 }),
  sdMm: closed(perAxis(Type.Optional(between(0, 1000)))),
  expectedErrorMm: closed({
    saddleHeightMm: between(0, 1000),
    setbackMm: between(0, 1000),
    reachMm: between(0, 1000),
    stackMm: between(0, 1000),
  }),
})

/** The published file format of bike types; its `sheet` is what the code calls equipment. See `docs/schemas/`. */
export const typeFileSchema = closed({
  format: Type.Unsafe<typeof TYPE_FILE_FORMAT>({ const: TYPE_FILE_FORMAT }),
  formatVersion: Type.Unsafe<1>({ const: 1 }),
  types: Type.Array(
    closed({ bikeType: bikeTypeRef, sheet: equipmentSchema, calibration: Type.Optional(calibrationSchema) }),
    { minItems: 1, maxItems: 100 },
  ),
})
export type TypeFile = Plain<typeof typeFileSchema>
