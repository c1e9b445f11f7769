/** What is wrong in an archive: a row of a section (from 0), the field within it; null for the section as a whole. */
export type ArchiveFault = Readonly<{ section: string; index: number | null; field: string; reason: string }>

export type ArchiveTally = Readonly<Record<'members' | 'setups' | 'numbers' | 'bikes' | 'types' | 'evidence', number>>

export type ArchiveOutcome =
  | Readonly<{ outcome: 'fits'; tally: ArchiveTally; version: number }>
  | Readonly<{ outcome: 'kept'; tally: ArchiveTally }>
  | Readonly<{ outcome: 'faulty'; faults: readonly ArchiveFault[]; count: number }>
  | Readonly<{ outcome: 'newer' | 'older'; version: number }>
  | Readonly<{ outcome: 'unreadable'; why: 'notJson' | 'cutShort' | 'rowTooLong' | 'tooDeep'; bytes: number }>
  | Readonly<{ outcome: 'notEmpty' | 'elsewhere' | 'otherFormat' | 'stopped' | 'busy' | 'gone' }>

/** Reasons of faults in an archive, without a full stop; they follow the place they are about. */
export const ARCHIVE_FAULT = Object.freeze({
  noVersion: 'must be a number: 2, 3 or 4',
  notAPart: 'is no part of an archive',
  invalid: 'is not right',
  twice: 'stands twice',
  missing: 'is missing',
  notOne: 'must be one',
  noMoment: 'is no moment there is',
  outOfYears: 'is not within 1900 to 2200',
  noRow: (section: string) => `no row of ${section} has this id`,
  laterPart: (since: number, version: string) => `is of version ${since}, and the archive says ${version}`,
})

/** "setups, row 12, marks/seatHeight: …"; rows count from 1. */
export const formatArchiveFault = ({ section, index, field, reason }: ArchiveFault): string =>
  `${[section, index === null ? '' : `row ${index + 1}`, field].filter(Boolean).join(', ')}: ${reason}.`

/** Why an archive was rejected, in a sentence; faults are listed one by one. */
export function formatArchiveRefusal(
  outcome: Exclude<ArchiveOutcome, { tally: ArchiveTally } | { count: number }>,
): string {
  switch (outcome.outcome) {
    case 'newer':
      return (
        `A later version of this product wrote this archive (version ${outcome.version}); ` +
        'this one reads versions 2 to 4.'
      )
    case 'older':
      return (
        `An earlier version of this product wrote this archive (version ${outcome.version}), from before there were ` +
        'classes. Open the studio there with this version, and take the archive out again.'
      )
    case 'unreadable': {
      const where = `after ${Math.round(outcome.bytes / 1000)} kB`
      if (outcome.why === 'cutShort') return 'This archive ends in the middle of something: it did not arrive whole.'
      if (outcome.why === 'tooDeep') return `What stands ${where} is nested deeper than anything in an archive.`
      return outcome.why === 'rowTooLong'
        ? `A row ${where} is longer than any of an archive.`
        : `This is not JSON ${where}; the file is damaged.`
    }
    case 'notEmpty':
      return 'This studio holds members, types or bikes already. An archive goes into one that holds nothing yet.'
    case 'elsewhere':
      return 'These records stand in another studio here already.'
    case 'otherFormat':
      return 'This is no archive of a studio.'
    case 'stopped':
      return 'Stopped; nothing was written.'
    case 'busy':
      return 'Another file is being imported just now. Wait until it is done, then try again.'
    case 'gone':
      return 'This file is not here any more; choose it again. Perhaps it was imported meanwhile.'
  }
}

/** "30 members with 41 sets of numbers, 10 set-ups, 24 bikes of 3 types" */
export const formatArchiveTally = ({ members, numbers, setups, bikes, types }: ArchiveTally): string =>
  `${members} members with ${numbers} sets of numbers, ${setups} set-ups, ${bikes} bikes of ${types} types`
