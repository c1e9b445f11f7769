'use client'
import type { ReactNode } from 'react'
import { backupTrouble, formatBytes, formatMoment } from '@/core/messages/studio/operation'
import { formatCertificateEnd } from '@/core/messages/studio/trust'
import type { OperationPage } from '@/server/pages/studio/operation'
import { StudioNav } from '../../frame/StudioNav'
import styles from './operation.module.css'

/** Days before its end from which a certificate "ends soon". */
const SOON_DAYS = 14

/** How the installation does: backups first, then what a helper on the telephone would want to know. */
export function OperationView(props: OperationPage) {
  const { version, startedAt, timeZone, database, backup, daysLeft, errors, now } = props
  const trouble = backupTrouble(backup, now)
  const at = (moment: Date) => formatMoment(moment, timeZone)
  return (
    <article className={styles.page}>
      <header>
        <StudioNav here="Operation" />
        <h1>Operation</h1>
      </header>
      <dl className={styles.facts}>
        <Fact title="Last backup" isBad={trouble !== null}>
          {backup?.lastSuccess ? at(backup.lastSuccess) : 'none'}
          <small>{trouble ?? `${formatBytes(backup!.bytes ?? 0)}, ${backup!.rows ?? 0} rows, encrypted`}</small>
        </Fact>
        {daysLeft !== null && (
          <Fact title="Certificate" isBad={daysLeft < SOON_DAYS}>
            {daysLeft < 0 ? 'ended' : `${daysLeft} days`}
            <small>{formatCertificateEnd(daysLeft, false)}</small>
          </Fact>
        )}
        <Fact title="Program">
          {version}
          <small>open since {at(startedAt)}</small>
        </Fact>
        <Fact title="Database">
          {formatBytes(database.bytes)}
          <small>{database.version}</small>
        </Fact>
      </dl>
      <section aria-label="Recent faults">
        <h2>Recent faults</h2>
        {errors.length === 0 ? (
          <p className={styles.quiet} data-empty>
            None since the program was started.
          </p>
        ) : (
          <ul className={styles.errors}>
            {errors.map(({ atMs, route, kind }, i) => (
              <li key={i}>
                <span>{at(new Date(atMs))}</span>
                <b>{route}</b>
                <span>{kind}</span>
              </li>
            ))}
          </ul>
        )}
      </section>
    </article>
  )
}

function Fact({ title, isBad, children }: Readonly<{ title: string; isBad?: boolean; children: ReactNode }>) {
  return (
    <div data-bad={isBad || undefined}>
      <dt>{title}</dt>
      <dd>{children}</dd>
    </div>
  )
}
