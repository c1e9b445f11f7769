import { Type } from '@sinclair/typebox'
import { poolResiduals, type PooledResidual } from '../learning/machineResiduals'
import { between, closed, type Plain } from '../schema'

const name = Type.String({ minLength: 1, maxLength: 80 })

/** What `machineResiduals` is asked: the height that was right for a rider on a machine, by its marks, and how sure. */
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

/** `machineResiduals`: what the riders checked on machines say of those machines. */
export const machineResiduals = ({
  checks,
  seed,
}: MachineResidualsRequest): Readonly<{ machines: readonly PooledResidual[] }> => ({
  machines: poolResiduals(checks, seed),
})
