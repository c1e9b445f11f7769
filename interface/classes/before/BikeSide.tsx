'use client'
import styles from './bikeSide.module.css'
import { useRefresh } from '../../kit/useRefresh'
import { useClassNews } from '../useClassNews'
import { useWakeLock } from '../watch/useWakeLock'
import { Link } from '../../kit/Link'

export type BikeSideProps = Readonly<{
  classId: string
  title: string
  number: number
  type: string
  name: string | null
  /** Each scale with its label, "Seat height" "9". */
  numbers: readonly Readonly<{ scale: string; label: string }>[] | null
  remark: string | null
}>

/** Refresh interval without class events, ms. */
const REFRESH_MS = 30_000

/** One bike fills a phone left on its bars: who sits here, and what to set. */
export function BikeSide({ classId, title, number, type, name, numbers, remark }: BikeSideProps) {
  const refresh = useRefresh(REFRESH_MS)
  useWakeLock()
  useClassNews(classId, (news) => news === null && refresh())
  return (
    <article className={styles.page}>
      <header className={styles.head}>
        <b>{number}</b>
        <p>
          {title}
          <small>{type}</small>
        </p>
        <Link href={`/class/${classId}`}>Floor</Link>
      </header>
      <h1>{name ?? 'free'}</h1>
      {numbers ? (
        <dl className={styles.numbers}>
          {numbers.map(({ scale, label }) => (
            <div key={scale}>
              <dt>{scale}</dt>
              <dd>{label}</dd>
            </div>
          ))}
        </dl>
      ) : (
        name && <p className={styles.none}>No numbers for this bike yet: your instructor comes.</p>
      )}
      {remark && <p className={styles.remark}>{remark}</p>}
      <p className={styles.caution}>
        Off the bike to adjust. Close and shake every pin. Never past the insertion mark.
      </p>
    </article>
  )
}
