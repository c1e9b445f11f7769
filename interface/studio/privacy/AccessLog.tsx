'use client'
import { Button, Select } from 'antd'
import '@/interface/kit/antd/select.generated.css'
import { useRouter } from 'next/navigation'
import { useState } from 'react'
import { formatAccess, formatVerdict } from '@/core/messages/studio/accessLog'
import { formatMoment } from '@/core/messages/studio/operation'
import type { AccessQuery, PrivacyPage } from '@/server/pages/studio/privacy'
import { query as ask } from '../../commands/command'
import { useAction } from '../../commands/useAction'
import { Link } from '../../kit/Link'
import { MemberSelect } from '../../riders/members/MemberSelect'
import styles from './privacy.module.css'

const KINDS = [
  { value: 'saw', label: 'Seen' },
  { value: 'changed', label: 'Changed' },
  { value: 'rights', label: 'Rights' },
] as const

/** The address of a part of the log. */
function addressOf(query: AccessQuery): string {
  const given = Object.entries(query).filter(([, value]) => value !== undefined)
  const search = new URLSearchParams(given.map(([key, value]) => [key, String(value)])).toString()
  return `/studio/privacy${search ? `?${search}` : ''}`
}

type Props = Omit<PrivacyPage, 'retention' | 'wording'>

/** Who saw and changed health data and rights, the latest first; whether it is as it was written. */
export function AccessLog({ timeZone, people, query, about, entries, more }: Props) {
  const router = useRouter()
  const { act, busy } = useAction()
  const [verdict, setVerdict] = useState<string | null>(null)
  const narrow = (change: AccessQuery) => router.push(addressOf({ ...query, before: undefined, ...change }))
  async function verify() {
    const answer = await act(() => ask('privacy.verifyLog', {}))
    if (answer) setVerdict(formatVerdict(answer.verdict))
  }
  const isNarrowed = Object.keys(query).length > 0
  return (
    <section aria-label="Access log">
      <div className={styles.bar}>
        <h2>Who saw and changed what</h2>
        <span aria-live="polite">{verdict}</span>
        <Button size="large" loading={busy} onClick={verify}>
          Check the log
        </Button>
      </div>
      <div className={`${styles.filters} no-print`}>
        <Select
          size="large"
          aria-label="Who"
          placeholder="Anybody"
          allowClear
          value={query.who}
          options={people.map(({ id, name }) => ({ value: id, label: name }))}
          onChange={(who?: string) => narrow({ who })}
        />
        {about ? (
          <Button size="large" onClick={() => narrow({ about: undefined })}>
            About {about.name} ✕
          </Button>
        ) : (
          <MemberSelect label="About" placeholder="About anybody" onPick={(member) => narrow({ about: member?.id })} />
        )}
        <Select
          size="large"
          aria-label="What"
          placeholder="Anything"
          allowClear
          value={query.kind}
          options={[...KINDS]}
          onChange={(kind?: AccessQuery['kind']) => narrow({ kind })}
        />
      </div>
      {entries.length === 0 ? (
        <p className={styles.quiet} data-empty>
          {isNarrowed ? 'No entry of that kind.' : 'Nobody saw or changed anything yet.'}
        </p>
      ) : (
        <ol className={styles.log}>
          {entries.map(({ position, at, kind, what, actor, isOwnPage, isStranger, subject }) => (
            <li key={position} data-kind={kind}>
              <time>{formatMoment(at, timeZone)}</time>
              <b>{isStranger ? 'Somebody' : isOwnPage ? 'Member' : (actor ?? 'Somebody who left')}</b>
              <span>{formatAccess(what)}</span>
              {subject?.kind === 'member' && <Link href={`/riders/${subject.id}`}>{subject.name}</Link>}
              {(subject?.kind === 'class' || subject?.kind === 'person') && <span>{subject.name}</span>}
              {subject?.kind === 'gone' && <span className={styles.gone}>somebody who is not here any more</span>}
            </li>
          ))}
        </ol>
      )}
      <nav className={`${styles.pages} no-print`} aria-label="Pages of the log">
        {query.before !== undefined && <Link href={addressOf({ ...query, before: undefined })}>Latest</Link>}
        {more && <Link href={addressOf({ ...query, before: entries.at(-1)!.position })}>Older</Link>}
      </nav>
    </section>
  )
}
