import { axesOf } from '@/core/bikes/bike/bike'
import type { AxisName, Marks } from '@/core/base/conventions'
import { defaultPosition } from '@/core/bikes/bike/standing'
import { formatHowToSet } from '@/core/messages/riders/memberPage'
import { axisTitle } from '@/core/messages/words/phrases'
import type { MachineCodePage } from '@/server/pages/bikes/machineCode'
import type { AloneFlowProps } from './AloneFlow'
import { drawnMarks } from '../scales/drawnMarks'

type Machine = Extract<MachineCodePage, Readonly<{ state: 'inForce' }>>

/** The machine's scales as the page draws them, so that it needs no arithmetic to open. */
export function aloneFlowProps(code: string, machine: Machine): Omit<AloneFlowProps, 'gettingOn'> {
  const { type, closing, machineCalibration, school, referral } = machine
  const none: Marks = {}
  return {
    code,
    bikeType: type,
    bike: machineCalibration,
    school,
    referral,
    scales: axesOf(type).map((axis) => ({
      axis,
      title: axisTitle(type, axis),
      how: formatHowToSet(axis, closing[axis], type.axes[axis]?.riderOn),
      drawnAs: 'ruler' in type.axes[axis]!.scale ? 'ticks' : 'holes',
      marks: drawnMarks(type, axis, none, none, undefined).map(({ label, text }) => ({ label, text })),
    })),
  }
}

/** Every axis at its middle: how a machine is drawn before anything is known. */
export const middleMarks = ({ type }: Pick<Machine, 'type'>): Marks =>
  Object.fromEntries(axesOf(type).map((axis): [AxisName, string] => [axis, defaultPosition(type, axis)!.label]))
