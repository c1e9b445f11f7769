import { COLUMN_HEADING } from '../../setups/openFiles/columns'
import type { CellFault } from '../../setups/openFiles/memberRow'
import { formatList, formatNearestLabels } from '../words/phrases'

/** What is wrong with a line of a file, by its number and, where it is a cell's, by column. */
export type FileFault = Readonly<{ line: number }> &
  (
    | Readonly<{ cell: CellFault }>
    | Readonly<{ code: 'cells'; found: number; wanted: number }>
    | Readonly<{ code: 'quoteOpen' | 'brokenQuote' | 'tooLong' | 'cutShort' }>
  )

/** "Line 7, seat height: …" */
export function formatFileFault(fault: FileFault): string {
  if ('cell' in fault)
    return `Line ${fault.line}, ${COLUMN_HEADING[fault.cell.column]}: ${formatCellFault(fault.cell)}.`
  switch (fault.code) {
    case 'cells':
      return `Line ${fault.line}: ${fault.found} cells, where the first line has ${fault.wanted}.`
    case 'quoteOpen':
      return `Line ${fault.line}: a quotation mark is opened and never closed; the file may have been cut short.`
    case 'brokenQuote':
      return `Line ${fault.line}: a quotation mark stands in the middle of a cell.`
    case 'tooLong':
      return `Line ${fault.line}: longer than any line of such a file.`
    case 'cutShort':
      return `Line ${fault.line}: the file ends here, in the middle of something.`
  }
}

function formatCellFault(fault: CellFault): string {
  switch (fault.code) {
    case 'empty':
      return 'empty'
    case 'tooLong':
      return 'longer than 120 letters'
    case 'unreadable':
      return 'nothing in it can be read'
    case 'notADate':
      return 'not a date; write 2026-11-23'
    case 'inTheFuture':
      return 'a day that has not come yet'
    case 'notAnId':
      return 'not an id; leave it empty for somebody new'
    case 'notALength':
      return 'not a length; write 12, 12 mm or 1.2 cm'
    case 'soleTooThick':
      return 'thicker than any sole'
    case 'centimetres':
      return `${fault.text} mm is no sole. If centimetres are meant, write ${fault.text} cm`
    case 'numberTooLong':
      return 'longer than 40 letters'
    case 'notAnEmail':
      return 'not an e-mail address'
    case 'notAHeight':
      return 'not a height of an adult; write 168, 168 cm, 1.68 m or 5′6″'
    case 'unknownType':
      return `the studio has no type called ${fault.text}; it has ${formatList(fault.known)}`
    case 'unknownWord':
      return `“${fault.text}” is none of ${formatList(fault.known)}`
    case 'noSuchAxis':
      return `${fault.type} has none; leave it empty`
    case 'noSuchLabel':
      return `${fault.type} has no ${fault.text} here; ${formatNearestLabels(fault.nearest)}`
    case 'missing':
      return `empty, and ${fault.type} has one`
    case 'numbersWithoutType':
      return 'numbers belong to a type of bike, and none is named'
    case 'otherName':
      return `this id is ${fault.name} here`
    case 'numberTaken':
      return `this number is ${fault.name}’s`
    case 'unknownId':
      return 'nobody here has this id; leave it empty for somebody new'
    case 'severalOfThatName':
      return 'several members have this name; add the member number or id'
    case 'saidOtherwise':
      return `line ${fault.line} has other numbers for the same person and type`
  }
}

/** Why a file was not looked at. */
export const FILE_REFUSAL_TEXT = Object.freeze({
  packed: 'This is a packed file. Unpack it and choose what is inside; nothing was read.',
  tooLarge: 'This file is larger than 500 MB; nothing was kept of it.',
  empty: 'This file is empty.',
  noLines: 'There is no line below the headings.',
  binary: 'This is neither a list (CSV) nor an archive (JSON).',
  gone: 'This file is not here any more; choose it again.',
  noName: 'Say which column holds the names, or the first and last names.',
  twice: 'Two columns are said to be the same.',
  stopped: 'Stopped; nothing was written.',
  notAllowed: 'Your role in this studio does not allow it.',
  cutShort: 'The file did not arrive whole; choose it again.',
})
export type FileRefusal = keyof typeof FILE_REFUSAL_TEXT

/** What a list would do, or did. */
export type ImportTally = Readonly<{
  lines: number
  newMembers: number
  existingMembers: number
  newNumbers: number
  changedNumbers: number
  sameNumbers: number
  /** Members who were here already and got another member number, e-mail address or height. */
  changedDetails: number
  /** Numbers that another user set during the import: those stay. */
  overtaken: number
  /** New names that differ from another's in capitals only. */
  alike: readonly Readonly<{ name: string; there: string }>[]
}>

/** New members who may be somebody who is here already, by a name that differs in capitals only. */
export const formatAlike = ({ alike }: ImportTally): string[] =>
  alike.map(
    ({ name, there }) => `“${name}” differs from “${there}” in capitals only, and becomes a member of their own.`,
  )

/** "12 new members; numbers: 30 new, 2 changed, 5 as they are; details of 3 members changed." */
export function formatTally(tally: ImportTally): string {
  const { newMembers, newNumbers, changedNumbers, sameNumbers, changedDetails, overtaken } = tally
  if (newMembers + newNumbers + changedNumbers + changedDetails === 0) return 'Everything in this file is here already.'
  const people = newMembers === 0 ? 'Nobody new' : `${newMembers} new ${newMembers === 1 ? 'member' : 'members'}`
  const later = overtaken === 0 ? '' : ` ${overtaken} were set by somebody meanwhile, and those hold.`
  const details =
    changedDetails === 0 ? '' : `; details of ${changedDetails} ${changedDetails === 1 ? 'member' : 'members'} changed`
  const numbers = `numbers: ${newNumbers} new, ${changedNumbers} changed, ${sameNumbers} as they are`
  return `${people}; ${numbers}${details}.${later}`
}
