import { axisOf, PEDAL_SIDES, type BikeType, type PedalSide } from '../bike/bike'
import { AXES, type AxisName, type Label, type Marks } from '../conventions'
import { CERTAINTIES, PURPOSES, type Certainty, type Footwear, type Purpose } from '../register/entry'
import { findPosition } from '../scale/scale'
import { parseLength } from '../units/length'

/** The columns of a file of members and numbers, in the order they are written. */
export const MEMBER_COLUMNS = [
  'memberId',
  'name',
  'bikeType',
  'purpose',
  ...AXES,
  'certainty',
  'soleMm',
  'pedal',
  'since',
] as const
export type MemberColumn = (typeof MEMBER_COLUMNS)[number]

/** A line of the file, a cell a column; a column the file lacks is empty. */
export type MemberCells = Readonly<Partial<Record<MemberColumn, string>>>

/** What is wrong with a cell. */
export type CellFault = Readonly<{ column: MemberColumn } & CellProblem>
export type CellProblem =
  | Readonly<{
      code: 'empty' | 'tooLong' | 'unreadable' | 'notADate' | 'inTheFuture' | 'notAnId' | 'notALength' | 'soleTooThick'
    }>
  | Readonly<{ code: 'centimetres'; text: string }>
  | Readonly<{ code: 'unknownType'; text: string; known: readonly string[] }>
  | Readonly<{ code: 'unknownWord'; text: string; known: readonly string[] }>
  | Readonly<{ code: 'noSuchAxis'; type: string }>
  | Readonly<{ code: 'noSuchLabel'; type: string; text: string; nearest: readonly Label[] }>
  | Readonly<{ code: 'missing'; type: string }>
  | Readonly<{ code: 'numbersWithoutType' }>
  /** Beyond the cells: what the studio, or an earlier line, says otherwise. */
  | Readonly<{ code: 'otherName'; name: string }>
  | Readonly<{ code: 'unknownId' }>
  | Readonly<{ code: 'severalOfThatName' }>
  | Readonly<{ code: 'saidOtherwise'; line: number }>

/** The numbers a line gives, in the spelling of their type's scales. */
export type RowNumbers = Readonly<{
  type: BikeType
  purpose: Purpose
  marks: Marks
  certainty: Certainty
  footwear: Footwear
  /** YYYY-MM-DD, or null where it is not said. */
  since: string | null
}>

export type ReadRow =
  | Readonly<{ outcome: 'read'; memberId: string | null; name: string; numbers: RowNumbers | null }>
  | Readonly<{ outcome: 'faulty'; faults: readonly CellFault[] }>

type Known = Readonly<{
  types: readonly BikeType[]
  /** A name as it is kept; empty where nothing is left of it. */
  normalizeName: (typed: string) => string
  maxNameLength: number
  /** YYYY-MM-DD. */
  today: string
}>

/** Thinner than this no sole is: centimetres were typed. */
const THINNEST_SOLE_MM = 4
const THICKEST_SOLE_MM = 80

/** Reads one line: who, and where given the numbers; or every fault of it, each with its column. */
export function readMemberRow(cells: MemberCells, { types, normalizeName, maxNameLength, today }: Known): ReadRow {
  const faults: CellFault[] = []
  const fault = (column: MemberColumn, problem: CellProblem) => void faults.push({ column, ...problem })
  const text = (column: MemberColumn) => unguarded((cells[column] ?? '').trim())
  const name = normalizeName(text('name'))
  if (name === '') fault('name', { code: text('name') === '' ? 'empty' : 'unreadable' })
  else if (name.length > maxNameLength) fault('name', { code: 'tooLong' })
  const memberId = text('memberId') || null
  if (memberId && !/^[0-9a-z-]{1,36}$/.test(memberId)) fault('memberId', { code: 'notAnId' })
  const given = AXES.filter((axis) => text(axis) !== '')
  const typeName = text('bikeType')
  if (typeName === '') {
    if (given.length > 0) fault('bikeType', { code: 'numbersWithoutType' })
    return faults.length > 0 ? { outcome: 'faulty', faults } : { outcome: 'read', memberId, name, numbers: null }
  }
  const type = types.find((one) => sameWord(one.name, typeName))
  if (!type) fault('bikeType', { code: 'unknownType', text: typeName, known: types.map((one) => one.name) })
  const word = <W extends string>(column: MemberColumn, words: readonly W[], usual: W): W => {
    const typed = text(column)
    const found = typed === '' ? usual : words.find((one) => sameWord(one, typed))
    if (!found) fault(column, { code: 'unknownWord', text: typed, known: words })
    return found ?? usual
  }
  const purpose = word('purpose', PURPOSES, 'usual')
  const certainty = word('certainty', CERTAINTIES, 'told')
  const pedal = text('pedal') === '' ? undefined : word<PedalSide>('pedal', PEDAL_SIDES, 'cage')
  const marks = type ? readMarks(type, text, fault) : {}
  const soleMm = readSole(text('soleMm'), (problem) => fault('soleMm', problem))
  const since = text('since') || null
  if (since && !isDate(since)) fault('since', { code: 'notADate' })
  else if (since && since > today) fault('since', { code: 'inTheFuture' })
  if (faults.length > 0 || !type) return { outcome: 'faulty', faults }
  const footwear: Footwear = { ...(soleMm !== undefined && { soleMm }), ...(pedal && { pedal }) }
  return { outcome: 'read', memberId, name, numbers: { type, purpose, marks, certainty, footwear, since } }
}

function readMarks(
  type: BikeType,
  text: (column: AxisName) => string,
  fault: (column: AxisName, problem: CellProblem) => void,
): Marks {
  const marks: Partial<Record<AxisName, Label>> = {}
  for (const axis of AXES) {
    const typed = text(axis)
    const scale = axisOf(type, axis)?.scale
    if (!scale) {
      if (typed !== '') fault(axis, { code: 'noSuchAxis', type: type.name })
      continue
    }
    if (typed === '') {
      fault(axis, { code: 'missing', type: type.name })
      continue
    }
    const found = findPosition(scale, plainLabel(typed))
    if (found.outcome === 'found') marks[axis] = found.stop.label
    else fault(axis, { code: 'noSuchLabel', type: type.name, text: typed, nearest: found.nearest })
  }
  return marks
}

function readSole(typed: string, fault: (problem: CellProblem) => void): number | undefined {
  if (typed === '') return undefined
  const read = parseLength(typed, 'mm')
  if (read.outcome !== 'read' || read.mm < 0) return void fault({ code: 'notALength' })
  if (read.mm > THICKEST_SOLE_MM) return void fault({ code: 'soleTooThick' })
  if (read.mm > 0 && read.mm < THINNEST_SOLE_MM) return void fault({ code: 'centimetres', text: typed })
  return Number(read.mm.toFixed(1))
}

/** A label as people and spreadsheets write it: "7½" and "7,5" → "7.5", "−2" → "-2". */
export function plainLabel(typed: string): string {
  return typed
    .replace(/[−–]/g, '-')
    .replace(/(\d)\s*½/, '$1.5')
    .replace(/^½$/, '0.5')
    .replace(/^([+-]?\d+),(\d+)$/, '$1.$2')
}

/** What a spreadsheet may take for a formula, also by the wide signs of East Asian keyboards; and the same guarded. */
const FORMULA = /^'*[=+\-@\t\r＝＋－＠]/
const GUARDED = /^'+[=+\-@\t\r＝＋－＠]/

/** A cell a spreadsheet would take for a formula, made plain text; numbers are left as they are. */
export const guarded = (text: string): string =>
  FORMULA.test(text) && !/^[+-]?\d+([.,]\d+)?$/.test(text) ? `'${text}` : text
/** The same undone. */
export const unguarded = (text: string): string => (GUARDED.test(text) ? text.slice(1) : text)

const sameWord = (a: string, b: string): boolean =>
  a.localeCompare(b, 'en', { sensitivity: 'base', ignorePunctuation: true }) === 0

/** A day of the calendar, YYYY-MM-DD. */
function isDate(text: string): boolean {
  const [, year, month, day] = (/^(\d{4})-(\d{2})-(\d{2})$/.exec(text) ?? []).map(Number)
  if (!month || month > 12) return false
  const isLeap = (year % 4 === 0 && year % 100 !== 0) || year % 400 === 0
  return day >= 1 && day <= (month === 2 && isLeap ? 29 : DAYS_OF_MONTH[month - 1])
}
const DAYS_OF_MONTH = [31, 28, 31, 30, 31, 30, 31, 31, 30, 31, 30, 31] as const
