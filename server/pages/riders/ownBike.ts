import type { BikeType } from '../../../core/bikes/bike/bike'
import type { BikeEquipment } from '../../../core/bikes/bike/equipment'
import type { Marks } from '../../../core/base/conventions'
import { isErrorResponse } from '../../../core/operations/errorResponse'
import type { TranslateResponse } from '../../../core/operations/requests/translate'
import type { Certainty } from '../../../core/setups/register/entry'
import { findBike } from '../../bikes/bikes'
import { findCode, normalizeCode } from '../../bikes/codes'
import { findType } from '../../bikes/versions'
import { numbersAt } from '../../classes/seats'
import { compute } from '../../platform/compute/pool'
import type { DbExecutor } from '../../platform/db/connection'
import type { LinkOwner } from '../../riders/memberPage/links'
import { byDisplayPriority, currentEntries } from '../../setups/register'
import { getStudio } from '../../studio/studio'
import { scopeOf } from './memberPage'

/** A member's numbers on the machine whose code they scanned. */
export type OwnBikePage = Readonly<{
  studio: Readonly<{ name: string; referral: string | null }>
  name: string
  number: number
  type: BikeType
  closing: BikeEquipment['closing']
  outOfUse: boolean
  /** With this machine's offset; null where the member has no numbers, or none that could be worked out for it. */
  marks: Marks | null
  certainty: Certainty | null
  remark: string | null
  /** The type the numbers were worked out from, where they are for another one. */
  from: string | null
}>

const PATIENCE_MS = 8000

/** Null where the code is not in force, or is another studio's. */
export async function ownBikePage(db: DbExecutor, owner: LinkOwner, typed: string): Promise<OwnBikePage | null> {
  const code = normalizeCode(typed)
  const found = code ? await findCode(db, code) : null
  if (!found || found.studioId !== owner.studioId || found.state !== 'inForce') return null
  const scope = scopeOf(owner)
  const [bike, studio, entries] = await Promise.all([
    findBike(db, scope, found.bikeId),
    getStudio(db, scope),
    currentEntries(db, scope, [owner.memberId]),
  ])
  if (!bike) return null
  const own = byDisplayPriority(entries)
  const here = numbersAt(bike, own)
  const page = {
    studio: { name: studio.name, referral: studio.referral },
    name: owner.name,
    number: bike.number,
    type: bike.type,
    closing: (await findType(db, scope, bike.typeId))?.equipment.closing ?? {},
    outOfUse: bike.openFaults > 0,
  }
  if (here.marks || own.length === 0)
    return { ...page, marks: here.marks, certainty: here.certainty, remark: here.remark, from: null }
  const [entry] = own
  const answer = await compute<TranslateResponse>(
    'translate',
    {
      from: { bikeType: entry.type, bike: entry.machineCalibration ?? {}, marks: entry.marks },
      to: { bikeType: bike.type, bike: bike.machineCalibration },
      school: studio.school,
    },
    PATIENCE_MS,
  )
  const marks = isErrorResponse(answer) ? null : answer.marks
  return { ...page, marks, certainty: marks && 'translated', remark: null, from: entry.type.name }
}
