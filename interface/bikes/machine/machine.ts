import type { Bike, BikeType } from '@/core/bikes/bike/bike'
import type { SaddleModel } from '@/core/bikes/saddles/saddle'

/** One machine as its page shows it. */
export type Machine = Readonly<{ id: string; number: number; machineCalibration: Bike; type: BikeType }>

/** A saddle of the studio with the bikes that carry it. */
export type StudioSaddle = Readonly<{ id: string; model: SaddleModel; bikes: readonly number[] }>
