import type { Bike, BikeType } from '@/core/bikes/bike/bike'
import type { Marks } from '@/core/base/conventions'
import { formatMarks } from '@/core/messages/words/labels'
import { CERTAINTY_WORD, formatBasis, formatFootwear, PURPOSE_NAME } from '@/core/messages/setups/register'
import { MEANT_TEXT } from '@/core/messages/setups/recommendation'
import { formatBikeName } from '@/core/messages/bikes/bikeNames'
import type { RegisterEntry } from '@/server/setups/register'
import { formatDate, formatTime } from '@/core/messages/words/dates'

/** An entry of the register in words, with what it takes to draw it. */
export type TimelineEntry = Readonly<{
  id: string
  /** Key of the set an entry belongs to: type and purpose. */
  set: string
  typeId: string
  type: BikeType
  bike: Bike
  marks: Marks
  line: string
  where: string
  purpose: string | null
  sure: string
  shoes: string | null
  why: string
  date: string
  time: string
  by: string
}>

/** A page of the time line in words. */
export const timelineEntries = (entries: readonly RegisterEntry[], timeZone: string): TimelineEntry[] =>
  entries.map((entry) => {
    const was = entries.find(({ id }) => id === entry.fromId)
    return timelineEntry(entry, timeZone, was ? formatDate(was.createdAt, timeZone) : null)
  })

/** `was` is the date of the restored entry, where it is loaded. */
function timelineEntry(entry: RegisterEntry, timeZone: string, was: string | null): TimelineEntry {
  const { type, marks, purpose, certainty, source, basis, meant, footwear } = entry
  return {
    id: entry.id,
    set: `${entry.lineId}/${purpose}`,
    typeId: entry.typeId,
    type,
    bike: entry.machineCalibration ?? {},
    marks,
    line: formatMarks(type, marks),
    where: formatBikeName(type.name, entry.bikeNumber),
    purpose: purpose === 'usual' ? null : PURPOSE_NAME[purpose],
    sure: CERTAINTY_WORD[certainty] + (meant ? `, on purpose: ${MEANT_TEXT[meant]}` : ''),
    shoes: formatFootwear(footwear),
    why: formatBasis(source, basis, was),
    date: formatDate(entry.createdAt, timeZone),
    time: formatTime(entry.createdAt, timeZone),
    by: entry.createdBy,
  }
}
