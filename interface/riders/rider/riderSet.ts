import { axesOf } from '@/core/bikes/bike/bike'
import { formatLabel, formatMarks } from '@/core/messages/words/labels'
import { axisTitle, capitalized } from '@/core/messages/words/phrases'
import { MEANT_TEXT } from '@/core/messages/setups/recommendation'
import {
  CERTAINTY_TEXT,
  formatBasis,
  formatFootwear,
  formatMachineWhy,
  PURPOSE_NAME,
} from '@/core/messages/setups/register'
import { formatBikeName } from '@/core/messages/bikes/bikeNames'
import { marksOnMachine } from '@/core/setups/translate/onMachine'
import type { StudioBike } from '@/server/bikes/bikes'
import type { RegisterEntry } from '@/server/setups/register'
import { formatDate, studioDay } from '@/core/messages/words/dates'
import type { RiderSet } from './RiderView'

type RiderState = Readonly<{
  bikes: readonly StudioBike[]
  /** The loaded time line, for the date of a restored entry. */
  entries: readonly RegisterEntry[]
  timeZone: string
}>

/** A set of numbers in words, with the marks each machine of its type takes for it. */
export function riderSet(entry: RegisterEntry, { bikes, entries, timeZone }: RiderState): RiderSet {
  const { type, marks, purpose, footwear } = entry
  const setting = { bikeType: type, bike: entry.machineCalibration ?? {}, marks }
  const machines = bikes
    .filter(({ lineId, id }) => lineId === entry.lineId && id !== entry.bikeId)
    .map((bike) => ({
      number: bike.number,
      type: bike.type,
      ...marksOnMachine(setting, { bikeType: bike.type, bike: bike.machineCalibration }),
    }))
  const was = entries.find(({ id }) => id === entry.fromId)
  const since = studioDay(entry.sinceAt, timeZone) === studioDay(entry.createdAt, timeZone) ? null : entry.sinceAt
  const name = PURPOSE_NAME[purpose]
  return {
    entryId: entry.id,
    lineId: entry.lineId,
    purposeOf: purpose,
    certainty: entry.certainty,
    type: type.name,
    purpose: purpose === 'usual' ? null : name,
    numbers: axesOf(type).map((axis) => ({
      title: axisTitle(type, axis),
      text: marks[axis] === undefined ? '–' : formatLabel(type, axis, marks[axis]),
    })),
    bikeId: entry.bikeId,
    bike: formatBikeName(type.name, entry.bikeNumber),
    date: formatDate(entry.createdAt, timeZone),
    since: since && formatDate(since, timeZone),
    by: entry.createdBy,
    sure:
      capitalized(CERTAINTY_TEXT[entry.certainty]) +
      (entry.meant ? `; set so on purpose, ${MEANT_TEXT[entry.meant]}` : ''),
    waits: entry.awaitsConfirmation,
    shoes: formatFootwear(footwear),
    why: capitalized(formatBasis(entry.source, entry.basis, was ? formatDate(was.createdAt, timeZone) : null)),
    machines: machines
      .filter(({ moved, translated }) => moved.length > 0 || translated)
      .map((one) => ({ number: one.number, line: formatMarks(one.type, one.marks), why: formatMachineWhy(one) })),
    same: machines.filter(({ moved, translated }) => moved.length === 0 && !translated).map(({ number }) => number),
    setting: {
      ...setting,
      entryId: entry.id,
      name: `${type.name}${purpose === 'usual' ? '' : `, ${name.toLowerCase()}`}`,
    },
  }
}
