import type { Bike, BikeType } from '@/core/bikes/bike/bike'

/** One machine as its page shows it. */
export type Machine = Readonly<{ id: string; number: number; machineCalibration: Bike; type: BikeType }>
