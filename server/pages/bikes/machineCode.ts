import type { Bike, BikeType } from '../../../core/bikes/bike/bike'
import type { BikeEquipment } from '../../../core/bikes/bike/equipment'
import type { School } from '../../../core/base/school/school'
import { findBike } from '../../bikes/bikes'
import type { FoundCode } from '../../bikes/codes'
import { findType } from '../../bikes/versions'
import type { Scope } from '../../platform/accounts/scope'
import type { DbExecutor } from '../../platform/db/connection'
import { getStudio } from '../../studio/studio'

/** What a machine's code opens to anybody: the machine, and nothing of any person. */
export type MachineCodePage =
  | Readonly<{ state: 'changed' | 'retired'; studio: string }>
  | Readonly<{
      state: 'inForce'
      studio: string
      /** The studio's words to a referred rider; null for the product's. */
      referral: string | null
      school: Partial<School>
      number: number
      type: BikeType
      closing: BikeEquipment['closing']
      machineCalibration: Bike
      outOfUse: boolean
      mayAlone: boolean
    }>

/** Nobody signed in, at a machine. */
const atMachine = (studioId: string): Scope => ({ studioId, userId: '', role: 'desk' })

export async function machineCodePage(db: DbExecutor, found: FoundCode): Promise<MachineCodePage> {
  const scope = atMachine(found.studioId)
  const studio = await getStudio(db, scope)
  const bike = found.state === 'inForce' ? await findBike(db, scope, found.bikeId) : null
  if (!bike || found.state !== 'inForce')
    return { state: found.state === 'changed' ? 'changed' : 'retired', studio: studio.name }
  const type = await findType(db, scope, bike.typeId)
  return {
    state: 'inForce',
    studio: studio.name,
    referral: studio.referral,
    school: studio.school,
    number: bike.number,
    type: bike.type,
    closing: type?.equipment.closing ?? {},
    machineCalibration: bike.machineCalibration,
    outOfUse: bike.openFaults > 0,
    mayAlone: studio.ridersAlone,
  }
}
