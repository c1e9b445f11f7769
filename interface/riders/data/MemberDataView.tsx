'use client'
import { Button } from 'antd'
import { useState } from 'react'
import type { MemberDataPage } from '@/server/pages/riders/memberData'
import { Link } from '../../kit/Link'
import { EraseMember } from './EraseMember'
import styles from './memberData.module.css'

/** All that is stored about a member: to read here, to hand over, to erase. */
export function MemberDataView({ memberId, name, parts }: MemberDataPage) {
  const [isErasing, setErasing] = useState(false)
  const filled = parts.filter(({ lines }) => lines.length > 0)
  const empty = parts.filter(({ lines }) => lines.length === 0).map(({ title }) => title.toLowerCase())
  return (
    <article className={styles.page}>
      <header className={styles.head}>
        <div>
          <Link href={`/riders/${memberId}`}>{name}</Link>
          <h1>Their data</h1>
        </div>
        <div className={`${styles.does} no-print`}>
          <Button type="primary" size="large" href={`/api/members/${memberId}/data.pdf`}>
            To read, PDF
          </Button>
          <Button size="large" href={`/api/members/${memberId}/data.json`}>
            All rows, JSON
          </Button>
          <Button danger size="large" onClick={() => setErasing(true)}>
            Erase …
          </Button>
        </div>
      </header>
      <p className={styles.lead}>
        A member may have all of this at any time, or have it erased. Their own page has the same two files.
      </p>
      {filled.map(({ title, lines }) => (
        <details key={title} className={styles.part} open={lines.length <= SHORT}>
          <summary>
            <h2>{title}</h2>
            <span>{lines.length}</span>
          </summary>
          <ol>
            {lines.map(({ date, text }, i) => (
              <li key={i}>
                <time>{date}</time>
                <span>{text}</span>
              </li>
            ))}
          </ol>
        </details>
      ))}
      {empty.length > 0 && <p className={styles.quiet}>Nothing of: {empty.join(', ')}.</p>}
      {isErasing && <EraseMember memberId={memberId} name={name} parts={filled} close={() => setErasing(false)} />}
    </article>
  )
}

/** Parts of so many lines are open at once. */
const SHORT = 6
