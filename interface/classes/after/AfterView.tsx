'use client'
import { Button } from 'antd'
import { AFTER_TITLE, formatRoomCueResult } from '@/core/messages/classes/watch'
import { AFTER_KINDS } from '@/core/classes/watch/afterList'
import { REFERRAL } from '@/core/classes/watch/comfort'
import type { AfterLineProps, AfterViewData } from './afterProps'
import styles from './after.module.css'
import { AfterLine } from './AfterLine'
import { AloneList } from '../before/AloneList'
import { ClassHead } from '../head/ClassHead'
import type { ClassInfo } from '../classTypes'
import type { AloneItem } from '@/server/pages/classes/alone'
import { useRefreshOnNews } from '../useClassNews'
import { Link } from '../../kit/Link'

type Props = Readonly<{
  info: ClassInfo
  data: AfterViewData
  /** To whom a line can be handed. */
  colleagues: readonly Readonly<{ id: string; name: string }>[]
  /** Riders who set themselves up alone and wait for a look. */
  alone: readonly AloneItem[]
  maySetUp: boolean
}>

/** What is seen to goes to the end of its kind. */
const inOrder = (rows: readonly AfterLineProps[]): AfterLineProps[] =>
  [...rows].sort((a, b) => Number(a.followUp !== null) - Number(b.followUp !== null))

/** After a class: one list by urgency, each line opening the rider where it is to be seen to. */
export function AfterView({ info, data, colleagues, alone, maySetUp }: Props) {
  useRefreshOnNews(info.id)
  const open = data.rows.filter(({ followUp }) => followUp === null).length + data.put.length
  const kinds = AFTER_KINDS.filter((kind) => data.rows.some((row) => row.kind === kind))
  return (
    <article className={styles.page}>
      <ClassHead info={info} moment="after" seesNotes />
      <h1 className={styles.printed}>
        {info.title}, {info.day}, {info.span}
      </h1>
      <div className={styles.sums}>
        <p>
          <b>
            {data.looked} of {data.riders}
          </b>
          riders looked at
        </p>
        <p>
          <b>{data.notes}</b>
          {data.notes === 1 ? 'note' : 'notes'} of what was seen
        </p>
        <p>
          <b>{open}</b>
          {open === 1 ? 'line' : 'lines'} to see to
        </p>
        <div className={`${styles.ways} no-print`}>
          <Button size="large" onClick={() => window.print()}>
            Print
          </Button>
          <Button size="large" href={`/api/classes/${info.id}/notes.csv`}>
            List (CSV)
          </Button>
        </div>
      </div>
      <AloneList items={alone} classId={info.id} timeZone={info.timeZone} />
      {data.rows.length + data.put.length === 0 && (
        <p className={styles.none} data-empty>
          {data.riders === 0 ? (
            <>
              Nobody had a bike in this class. <Link href={`/class/${info.id}`}>Give the riders their bikes</Link>
            </>
          ) : (
            'Nothing is left to see to.'
          )}
        </p>
      )}
      {data.put.length > 0 && (
        <section className={styles.kind} aria-label="Put to this class">
          <h2>Put to this class</h2>
          <ul>
            {data.put.map((row) => (
              <AfterLine
                key={`${row.classId} ${row.kind} ${row.memberId}`}
                row={row}
                colleagues={colleagues}
                maySetUp={maySetUp}
                timeZone={info.timeZone}
              />
            ))}
          </ul>
        </section>
      )}
      {kinds.map((kind) => (
        <section key={kind} className={kind === 'redFlag' ? styles.flag : styles.kind} aria-label={AFTER_TITLE[kind]}>
          <h2>{AFTER_TITLE[kind]}</h2>
          {kind === 'redFlag' && <p className={styles.refer}>{data.referral ?? REFERRAL}</p>}
          <ul>
            {inOrder(data.rows.filter((row) => row.kind === kind)).map((row) => (
              <AfterLine
                key={row.memberId}
                row={row}
                colleagues={colleagues}
                maySetUp={maySetUp}
                timeZone={info.timeZone}
              />
            ))}
          </ul>
        </section>
      ))}
      {data.roomCues.length > 0 && (
        <section className={styles.kind} aria-label="Said to the room">
          <h2>Said to the room</h2>
          <ul>
            {data.roomCues.map(({ cue, riders, result }, i) => (
              <li key={i} className={styles.line}>
                “{cue}”
                <small>
                  {result
                    ? formatRoomCueResult(result)
                    : `Meant for ${riders}; nobody was looked at again, so what it changed is not known.`}
                </small>
              </li>
            ))}
          </ul>
        </section>
      )}
      {data.notLooked.length > 0 && (
        <section className={styles.kind} aria-label="Not looked at">
          <h2>Not looked at</h2>
          <p className={styles.line}>{data.notLooked.map(({ name, number }) => `${number} ${name}`).join(', ')}</p>
        </section>
      )}
    </article>
  )
}
