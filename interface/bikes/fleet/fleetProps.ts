import { assessMachineTilt } from '@/core/bikes/bike/tilt'
import {
  formatCalibrationQuality,
  formatInspectionState,
  formatResidualBriefly,
  formatTiltFault,
} from '@/core/messages/bikes/machine'
import { formatDate } from '@/core/messages/words/dates'
import type { Fleet } from '@/server/pages/bikes/fleet'
import type { BikesViewProps } from './BikesView'

/** The fleet in words. A machine's line names its worst fault: out of use, tilted saddle, offset seen by riders. */
export const fleetProps = ({ timeZone, tilt, types, bikes, retired, ...rest }: Fleet): BikesViewProps => ({
  ...rest,
  types: types.map(({ lineId, version, bikeType, calibration, count }) => ({
    lineId,
    version,
    bikeType,
    measured: calibration !== null,
    sure: formatCalibrationQuality(calibration),
    count,
  })),
  retired: retired.map(({ retiredAt, ...one }) => ({ ...one, when: formatDate(retiredAt, timeZone) })),
  bikes: bikes.map(({ id, number, type, machineCalibration, state, residual: found }) => {
    const isFaulty = state.outcome === 'faulty'
    const assessed = assessMachineTilt(machineCalibration, type.saddle.shape, tilt)
    const tilted = assessed && assessed.outcome !== 'good' && !isFaulty ? assessed : null
    const residual = isFaulty ? null : found
    return {
      id,
      number,
      type: type.name,
      state: tilted
        ? formatTiltFault(tilted)
        : residual
          ? formatResidualBriefly(residual)
          : formatInspectionState(state, timeZone),
      bad: state.outcome !== 'good' || tilted !== null || residual !== null,
      out: isFaulty,
    }
  }),
})
