import { isErrorResponse } from '../../core/operations/errorResponse'
import type { CalibrateResponse } from '../../core/operations/requests/calibrate'
import type { Scope } from '../platform/accounts/scope'
import { compute } from '../platform/compute/pool'
import type { Database } from '../platform/db/connection'
import { listTapeReadings } from './tapeReadings'
import { findType, writeVersion } from './versions'

export type CalibrateTypeResult =
  | Readonly<{ outcome: 'kept'; lineId: string }>
  | Readonly<{ outcome: 'noSuchType' | 'changedMeanwhile' }>
  /** Why the readings make no fit, or why there was no answer, in words. */
  | Readonly<{ outcome: 'notFitted'; say: string }>

/**
 * Puts what the tape found in force: a new version with its geometry, and how sure it is on all machines of the type.
 */
export async function calibrateType(
  db: Database,
  scope: Scope,
  { id, typeId }: Readonly<{ id: string; typeId: string }>,
  now: Date,
): Promise<CalibrateTypeResult> {
  const type = await findType(db, scope, typeId)
  if (!type) return { outcome: 'noSuchType' }
  const readings = (await listTapeReadings(db, scope, typeId)).map((r) => r.row)
  const answer = await compute<CalibrateResponse>('calibrate', { bikeType: type.bikeType, readings })
  if (isErrorResponse(answer)) return { outcome: 'notFitted', say: answer.error.faults.map((f) => f.reason).join('; ') }
  if (answer.outcome === 'refused') return { outcome: 'notFitted', say: answer.say }
  const { bikeType, rmsMm, sdMm, expectedErrorMm } = answer
  const calibration = { rmsMm, readings: readings.length, sdMm, expectedErrorMm }
  const document = { bikeType, equipment: type.equipment }
  const written = await writeVersion(db, scope, { id, baseId: typeId, document, calibration }, now)
  return written.outcome === 'kept' ? { outcome: 'kept', lineId: written.lineId } : { outcome: 'changedMeanwhile' }
}
