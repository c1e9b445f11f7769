import {
  formatArchiveFault,
  formatArchiveRefusal,
  formatArchiveTally,
  type ArchiveOutcome,
} from '@/core/messages/studio/archive'
import { formatAlike, formatFileFault, formatTally } from '@/core/messages/studio/files'
import type { ImportOutcome } from '@/server/files/importMembers'
import type { Refused } from './requestFile'
import styles from './filesView.module.css'

/** What became of a file: what it would do or did, or what is wrong with it, each by its place. */
export function FileResult({ result }: { result: ImportOutcome | ArchiveOutcome | Refused }) {
  switch (result.outcome) {
    case 'fits':
      return (
        <>
          <p className={styles.good}>{tallyText(result.tally)} Nothing is written yet.</p>
          <Alike tally={result.tally} />
        </>
      )
    case 'kept':
      return (
        <>
          <p className={styles.good}>Imported. {tallyText(result.tally)}</p>
          <Alike tally={result.tally} />
        </>
      )
    case 'refused':
      return <p className={styles.act}>{result.say}</p>
    case 'faulty':
      return (
        <div>
          <p className={styles.act}>
            {result.count === 1 ? 'One thing is' : `${result.count} things are`} wrong, and nothing was written. Correct
            the file and choose it again, or say otherwise what a column is.
          </p>
          <ul className={styles.faults}>
            {result.faults.map((fault, i) => (
              <li key={i}>{'section' in fault ? formatArchiveFault(fault) : formatFileFault(fault)}</li>
            ))}
            {result.count > result.faults.length && <li>… and {result.count - result.faults.length} more.</li>}
          </ul>
        </div>
      )
    default:
      return <p className={styles.act}>{formatArchiveRefusal(result)}</p>
  }
}

type Tally = Extract<ImportOutcome | ArchiveOutcome, { outcome: 'fits' | 'kept' }>['tally']

const tallyText = (tally: Tally): string =>
  'lines' in tally ? `${tally.lines} lines, all right. ${formatTally(tally)}` : `${formatArchiveTally(tally)}.`

/** Names to look at: nothing is wrong with them, and they may be meant for somebody who is here. */
function Alike({ tally }: { tally: Tally }) {
  const alike = 'lines' in tally ? formatAlike(tally) : []
  return (
    alike.length > 0 && (
      <ul className={styles.faults}>
        {alike.map((line) => (
          <li key={line}>{line}</li>
        ))}
      </ul>
    )
  )
}
