import { plumbFromFrontMm } from '../../riders/evidence/kinds/onBike/plumb'
import type { Evidence, EvidenceOf } from '../../riders/evidence/registry'
import { MEASUREMENT_SD } from '../../base/measurementNoise'
import { schoolOf, type School } from '../../base/school/school'
import type { EyePair } from './observerFromPairs'

/** A row, in which set-up and by whom it was written. */
export type WrittenRow = Readonly<{ setupId: string; by: string; row: Evidence }>

export type EyePairs = Readonly<{
  knee: readonly EyePair<EvidenceOf<'kneeByEye'>['seen']>[]
  plumb: readonly EyePair<EvidenceOf<'plumbByEye'>['seen']>[]
}>

const KNEE_SD = {
  goniometer: MEASUREMENT_SD.goniometerDeg,
  photo: MEASUREMENT_SD.photoDeg,
  gauge: MEASUREMENT_SD.gaugeDeg,
} as const

/**
 * Where one person's eye and an instrument, in any hand, looked at one rider with the saddle at one place: each
 * look with the first instrument's reading there.
 */
export function eyePairs(rows: readonly WrittenRow[], person: string, school: Partial<School> = {}): EyePairs {
  const chosen = schoolOf(school)
  const sameplace = (a: WrittenRow, b: WrittenRow) =>
    a.setupId === b.setupId &&
    a.row.at?.seatHeight !== undefined &&
    a.row.at.seatHeight === b.row.at?.seatHeight &&
    a.row.at.seatSlide === b.row.at?.seatSlide
  const own = rows.filter(({ by }) => by === person)
  return {
    knee: own.flatMap((look) => {
      const { row } = look
      if (row.kind !== 'kneeByEye') return []
      const read = rows.find(
        (other) =>
          other.row.kind === 'kneeAngle' &&
          other.row.foot !== 'heel' &&
          !other.row.moving &&
          (row.side === undefined || other.row.side === undefined || row.side === other.row.side) &&
          sameplace(look, other),
      )?.row
      return read?.kind === 'kneeAngle' ? [{ seen: row.seen, read: read.deg, readSd: KNEE_SD[read.by] }] : []
    }),
    plumb: own.flatMap((look) => {
      const { row } = look
      if (row.kind !== 'plumbByEye') return []
      const read = rows.find((other) => other.row.kind === 'plumb' && sameplace(look, other))?.row
      return read?.kind === 'plumb'
        ? [{ seen: row.seen, read: plumbFromFrontMm(read, chosen), readSd: MEASUREMENT_SD.plumbMm }]
        : []
    }),
  }
}
