import { Type } from '@sinclair/typebox'
import { poolResiduals, type PooledResidual } from '../../setups/learning/machineResiduals'
import { between, closed, type Plain } from '../../base/schema'

const name = Type.String({ minLength: 1, maxLength: 80 })

/**
 * Request of `machineResiduals`: the height that fitted a rider on a machine, by its marks, with its standard
 * deviation.
 */
export const machineResidualsSchema = closed({
  checks: Type.Array(
    closed({
      machine: name,
      rider: name,
      heightMm: between(-5000, 5000),
      sdMm: between(0.5, 200),
      /** Its type, and whose eye looked where no instrument did. */
      type: Type.Optional(name),
      eye: Type.Optional(name),
    }),
    { maxItems: 2000 },
  ),
  seed: Type.Optional(Type.Integer({ minimum: -2147483648, maximum: 2147483647 })),
})
export type MachineResidualsRequest = Plain<typeof machineResidualsSchema>

/** `machineResiduals`: offsets of machines by the riders checked on them. */
export const machineResiduals = ({
  checks,
  seed,
}: MachineResidualsRequest): Readonly<{ machines: readonly PooledResidual[] }> => ({
  machines: poolResiduals(checks, seed),
})
