'use client'
import { Button } from 'antd'
import { formatCertificateEnd, REACH_TEXT } from '@/core/messages/studio/trust'
import type { DevicesPage } from '@/server/pages/studio/devices'
import { StudioNav } from '../../frame/StudioNav'
import { useCopy } from '../../kit/useCopy'
import { Fingerprint } from './Fingerprint'
import { SharedTablets } from './SharedTablets'
import styles from './devices.module.css'

/** How phones and tablets come to this studio: its address, and what they have to trust first. */
export function DevicesView({ address, qr, fingerprint, daysLeft, tablets, rooms }: DevicesPage) {
  const copy = useCopy()
  return (
    <article className={styles.page}>
      <header className={styles.head}>
        <StudioNav here="Devices" />
        <h1>Devices</h1>
      </header>
      <section className={styles.trust} aria-label="A new device">
        {/* eslint-disable-next-line @next/next/no-img-element -- drawn on the server, nothing to fetch */}
        <img src={`data:image/svg+xml;utf8,${encodeURIComponent(qr)}`} alt="QR code of the address" />
        <div>
          <p className={styles.address}>{address}</p>
          <p className={styles.quiet}>
            {REACH_TEXT[fingerprint ? 'trustFirst' : isThisComputer(address) ? 'thisComputer' : 'open']}
          </p>
          <div>
            <Button size="large" onClick={() => copy(address)}>
              Copy the address
            </Button>
          </div>
          {fingerprint && <Fingerprint text={fingerprint} />}
          {daysLeft !== null && <p className={styles.quiet}>{formatCertificateEnd(daysLeft, fingerprint !== null)}</p>}
        </div>
      </section>
      <SharedTablets tablets={tablets} rooms={rooms} />
    </article>
  )
}

const isThisComputer = (address: string) => ['127.0.0.1', 'localhost'].includes(new URL(address).hostname)
