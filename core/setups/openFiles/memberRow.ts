import { axisOf, PEDAL_SIDES, type BikeType, type PedalSide } from '../../bikes/bike/bike'
import { STATURE_RANGE_MM } from '../../riders/evidence/kinds/body/stature'
import { AXES, FURTHER_AXES, type AxisName } from '../../base/adjustments'
import type { Label, Marks } from '../../base/conventions'
import { CERTAINTIES, PURPOSES, type Certainty, type Footwear, type Purpose } from '../register/entry'
import { findPosition } from '../../bikes/scale/scale'
import { parseLength } from '../../base/length'

/** The columns of a file of members and numbers, in the order they are written. */
export const MEMBER_COLUMNS = [
  'memberId',
  'memberNumber',
  'name',
  'firstName',
  'lastName',
  'email',
  'statureMm',
  'bikeType',
  'purpose',
  ...AXES,
  'certainty',
  'soleMm',
  'pedal',
  'since',
] as const
export type MemberColumn = (typeof MEMBER_COLUMNS)[number]
/**
 * The columns as this product writes them for a studio of these types: a name is one text, and what none of its bikes
 * has beside the common four takes no column.
 */
export const writtenColumns = (types: readonly BikeType[]): readonly MemberColumn[] =>
  MEMBER_COLUMNS.filter((column) => {
    const further = FURTHER_AXES.find((axis) => axis === column)
    if (further) return types.some(({ axes }) => axes[further])
    return column !== 'firstName' && column !== 'lastName'
  })

/** A line of the file, a cell a column; a column the file lacks is empty. */
export type MemberCells = Readonly<Partial<Record<MemberColumn, string>>>

/** What is wrong with a cell. */
export type CellFault = Readonly<{ column: MemberColumn } & CellProblem>
export type CellProblem =
  | Readonly<{
      code:
        | 'empty'
        | 'tooLong'
        | 'unreadable'
        | 'notADate'
        | 'inTheFuture'
        | 'notAnId'
        | 'notALength'
        | 'soleTooThick'
        | 'numberTooLong'
        | 'notAnEmail'
        | 'notAHeight'
    }>
  | Readonly<{ code: 'centimetres'; text: string }>
  | Readonly<{ code: 'unknownType'; text: string; known: readonly string[] }>
  | Readonly<{ code: 'unknownWord'; text: string; known: readonly string[] }>
  | Readonly<{ code: 'noSuchAxis'; type: string }>
  | Readonly<{ code: 'noSuchLabel'; type: string; text: string; nearest: readonly Label[] }>
  | Readonly<{ code: 'missing'; type: string }>
  | Readonly<{ code: 'numbersWithoutType' }>
  /** Faults beyond the cells: conflicts with the studio or with an earlier line. */
  | Readonly<{ code: 'otherName'; name: string }>
  | Readonly<{ code: 'numberTaken'; name: string }>
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
  /** YYYY-MM-DD, or null where missing. */
  since: string | null
}>

/** Details of the member in a line, besides the name; absent ones are left out. */
export type MemberDetails = Readonly<{ number?: string; email?: string; statureMm?: number }>

export type ReadRow =
  | Readonly<{
      outcome: 'read'
      memberId: string | null
      name: string
      details: MemberDetails
      numbers: RowNumbers | null
    }>
  | Readonly<{ outcome: 'faulty'; faults: readonly CellFault[] }>

type RowContext = Readonly<{
  types: readonly BikeType[]
  /** A name as stored; empty where nothing is left of it. */
  normalizeName: (typed: string) => string
  maxNameLength: number
  /** YYYY-MM-DD. */
  today: string
}>

/** Maximum length of a member number. */
export const MAX_NUMBER_LENGTH = 40
/** Longest e-mail address (RFC 5321, section 4.5.3.1.3: a path of 256 with its brackets). */
const MAX_EMAIL_LENGTH = 254
/** Thinner than this no sole is: centimetres were typed. */
const THINNEST_SOLE_MM = 4
const THICKEST_SOLE_MM = 80

/**
 * Reads one line: name, details, and the numbers if given; or every fault of it, each with its
 * column. Numbers without a type are of the studio's only type, where it has just one.
 */
export function readMemberRow(cells: MemberCells, { types, normalizeName, maxNameLength, today }: RowContext): ReadRow {
  const faults: CellFault[] = []
  const fault = (column: MemberColumn, problem: CellProblem) => void faults.push({ column, ...problem })
  const text = (column: MemberColumn) => unguarded((cells[column] ?? '').trim())
  const typedName = text('name') || `${text('firstName')} ${text('lastName')}`.trim()
  const name = normalizeName(typedName)
  if (name === '') fault('name', { code: typedName === '' ? 'empty' : 'unreadable' })
  else if (name.length > maxNameLength) fault('name', { code: 'tooLong' })
  const memberId = text('memberId') || null
  if (memberId && !/^[0-9a-z-]{1,36}$/.test(memberId)) fault('memberId', { code: 'notAnId' })
  const details = readDetails(text, fault)
  const given = AXES.filter((axis) => text(axis) !== '')
  const onlyType = given.length > 0 && types.length === 1 ? types[0].name : ''
  const typeName = text('bikeType') || onlyType
  if (typeName === '') {
    if (given.length > 0) fault('bikeType', { code: 'numbersWithoutType' })
    return faults.length > 0
      ? { outcome: 'faulty', faults }
      : { outcome: 'read', memberId, name, details, numbers: null }
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
  return { outcome: 'read', memberId, name, details, numbers: { type, purpose, marks, certainty, footwear, since } }
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

function readDetails(
  text: (column: MemberColumn) => string,
  fault: (column: MemberColumn, problem: CellProblem) => void,
): MemberDetails {
  const [number, email, height] = [text('memberNumber'), text('email'), text('statureMm')]
  if (number.length > MAX_NUMBER_LENGTH) fault('memberNumber', { code: 'numberTooLong' })
  if (email !== '' && !isEmail(email)) fault('email', { code: 'notAnEmail' })
  const statureMm = height === '' ? undefined : readStature(height)
  if (statureMm === null) fault('statureMm', { code: 'notAHeight' })
  return { ...(number && { number }), ...(email && { email }), ...(statureMm && { statureMm }) }
}

/** Whether a text has the shape of an e-mail address. */
export const isEmail = (text: string): boolean =>
  text.length <= MAX_EMAIL_LENGTH && /^[^\s@]+@[^\s@]+\.[^\s@]+$/.test(text)

/** Units of a bare height, each with the numbers that can mean no other: no two spans meet. */
const HEIGHT_UNITS = [
  ['m', 1, 2.5],
  ['in', 39, 99],
  ['cm', 100, 250],
  ['mm', 1000, 2500],
] as const

/**
 * A rider's height in mm as lists have it: `readStature('168')`, `('1,68')`, `('168 cm')` and `('1680')` are 1680,
 * `("5'6")` is 1676; null for what is no height of an adult.
 */
export function readStature(typed: string): number | null {
  const bare = Number(typed.replace(',', '.'))
  const unit = HEIGHT_UNITS.find(([, least, most]) => bare >= least && bare <= most)?.[0]
  if (!Number.isNaN(bare) && !unit) return null
  const read = parseLength(unit ? `${typed} ${unit}` : typed, 'cm')
  if (read.outcome !== 'read' || read.mm < STATURE_RANGE_MM[0] || read.mm > STATURE_RANGE_MM[1]) return null
  return Math.round(read.mm)
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
