import { parse } from 'csv-parse/sync'
import dayjs from 'dayjs'
import customParseFormat from 'dayjs/plugin/customParseFormat'
import type { ClassListFault } from '../../core/messages/classes/timetable'
import type { TimetableEntry } from './classes'
import { momentAt } from '../studio/day'

dayjs.extend(customParseFormat)

/** A class of a list with who is booked for it. */
export type ListedClass = TimetableEntry &
  Readonly<{ riders: readonly Readonly<{ line: number; name: string; comesMinBefore: number }>[] }>
export type ClassListRead = Readonly<{ classes: readonly ListedClass[]; faults: readonly ClassListFault[] }>

/** Headings of the list; `name` and `comes` may be left out, and a line without a name is a class alone. */
const HEADINGS = ['day', 'start', 'minutes', 'class', 'room', 'name', 'comes'] as const
const NEEDED = ['day', 'start', 'class'] as const
const MAX_LINES = 20_000
/** Default arrival of a rider, minutes before the start. */
const USUAL_COMING = 10

/**
 * A list of classes and bookings (CSV with the headings day, start, minutes, class, room, name, comes; a line a
 * booking). Unreadable lines are reported and left out; the same rider twice in a class is listed once.
 */
export function readClassList(text: string, timeZone: string): ClassListRead {
  const faults: ClassListFault[] = []
  let rows: string[][]
  try {
    const delimiter = (text.split('\n')[0].match(/;/g) ?? []).length > 1 ? ';' : ','
    rows = parse(text, { bom: true, delimiter, relax_column_count: true, skip_empty_lines: true, trim: true })
  } catch {
    return { classes: [], faults: [{ line: 1, code: 'notAList' }] }
  }
  const [headings = [], ...lines] = rows
  const at = new Map(HEADINGS.map((heading) => [heading, headings.findIndex((h) => h.toLowerCase() === heading)]))
  const missing = NEEDED.filter((heading) => at.get(heading) === -1)
  if (missing.length > 0) return { classes: [], faults: [{ line: 1, code: 'noHeading', heading: missing[0] }] }
  if (lines.length > MAX_LINES) return { classes: [], faults: [{ line: 1, code: 'tooLong' }] }
  const found = new Map<string, ListedClass>()
  lines.forEach((cells, i) => {
    const line = i + 2
    const cell = (heading: (typeof HEADINGS)[number]) => cells[at.get(heading)!] ?? ''
    const day = dayjs(cell('day'), 'YYYY-MM-DD', true)
    if (!day.isValid()) return void faults.push({ line, code: 'noDay', text: cell('day') })
    const time = /^([01]?\d|2[0-3])[:.]([0-5]\d)$/.exec(cell('start'))
    if (!time) return void faults.push({ line, code: 'noTime', text: cell('start') })
    const minutes = cell('minutes') === '' ? 60 : Number(cell('minutes'))
    if (!(minutes >= 5 && minutes <= 600)) return void faults.push({ line, code: 'oddMinutes', text: cell('minutes') })
    const title = cell('class').slice(0, 120)
    if (title === '') return void faults.push({ line, code: 'noTitle' })
    const startsAt = momentAt(day.format('YYYY-MM-DD'), `${time[1].padStart(2, '0')}:${time[2]}`, timeZone)
    const occurrence = `${day.format('YYYY-MM-DD')} ${time[1].padStart(2, '0')}:${time[2]}`
    const uid = `list: ${title}`.slice(0, 190)
    const key = `${uid} ${occurrence}`
    const before = found.get(key)
    const riders = [...(before?.riders ?? [])]
    const name = cell('name')
    if (name !== '') {
      const comes = cell('comes') === '' ? USUAL_COMING : Number(cell('comes'))
      if (!Number.isInteger(comes) || Math.abs(comes) > 600)
        faults.push({ line, code: 'oddComing', text: cell('comes') })
      else if (riders.some((one) => one.name.toLowerCase() === name.toLowerCase()))
        faults.push({ line, code: 'riderTwice', text: name })
      else riders.push({ line, name, comesMinBefore: comes })
    }
    found.set(key, {
      uid,
      occurrence,
      title,
      place: cell('room'),
      startsAt,
      endsAt: new Date(startsAt.getTime() + minutes * 60_000),
      cancelled: false,
      riders,
    })
  })
  return { classes: [...found.values()], faults }
}
