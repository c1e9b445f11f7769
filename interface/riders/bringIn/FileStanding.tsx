'use client'
import { Button } from 'antd'
import { formatDate } from '@/core/messages/words/dates'
import { STANDING_TITLE, TOLD_FOLLOWS, TOLD_TEXT } from '@/core/messages/riders/riderFile'
import type { ReadRiderFile } from '@/server/files/riderFile/read'
import { command } from '../../commands/command'
import { useAction } from '../../commands/useAction'
import styles from './bringIn.module.css'

type FileStandingProps = Readonly<{
  file: ReadRiderFile
  mayKnowStudios: boolean
  timeZone: string
  /** The studio is known from now on: the file is read again. */
  known: () => Promise<void>
}>

/** What a file is worth, and why; a manager can take its studio as known after comparing its print. */
export function FileStanding({ file, mayKnowStudios, timeZone, known }: FileStandingProps) {
  const { act, busy } = useAction()
  const { standing, studio, rider, issuedAt } = file
  const at = new Date(issuedAt)
  const isUnknown = standing.standing === 'told' && standing.why === 'unknownStudio'
  async function know() {
    if (await act(() => command('riderFiles.knowStudio', { key: studio.key!, studioName: studio.name }))) await known()
  }
  return (
    <section className={styles.standing} data-standing={standing.standing} aria-label="What it is worth">
      <h2>{STANDING_TITLE[standing.standing]}</h2>
      <p>
        {rider}, from {studio.name || 'an unnamed studio'}
        {Number.isNaN(at.getTime()) ? '' : `, ${formatDate(at, timeZone)}`}
      </p>
      {standing.standing === 'told' && (
        <p>
          {TOLD_TEXT[standing.why]} {TOLD_FOLLOWS}
        </p>
      )}
      {isUnknown && (
        <div className={styles.know}>
          <p>
            Its print: <code>{studio.print}</code>
          </p>
          {mayKnowStudios ? (
            <>
              <p className={styles.quiet}>
                Ask that studio for its print (Studio, Files) by another way than this file. Where the two agree:
              </p>
              <Button size="large" loading={busy} onClick={know}>
                We know this studio
              </Button>
            </>
          ) : (
            <p className={styles.quiet}>A manager can take this studio as known.</p>
          )}
        </div>
      )}
    </section>
  )
}
