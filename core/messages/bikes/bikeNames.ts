import type { EvidenceOf } from '../../riders/evidence/registry'

/** That a bike changed after a rider's numbers were saved on it. `date` in the studio's words. */
export const formatBikeChanged = (bikeNumber: number, date: string): string =>
  `Bike ${bikeNumber} was found changed on ${date}, after these numbers were saved. Look at the knee again.`

/** The side of the pedal a rider uses, or null where it is unknown. */
export const formatPedalSide = (pedal: EvidenceOf<'rider'>['pedal']): string | null =>
  pedal ? { cleat: 'cleats', cage: 'cage side' }[pedal] : null

/** "Sorrel, bike 7"; the type alone where it was no one machine. */
export const formatBikeName = (typeName: string, bikeNumber: number | null): string =>
  bikeNumber === null ? typeName : `${typeName}, bike ${bikeNumber}`
