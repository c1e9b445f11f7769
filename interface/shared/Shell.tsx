'use client'
import Link from 'next/link'
import { usePathname } from 'next/navigation'
import type { ReactNode } from 'react'
import { OutboxStatus } from '../outbox/OutboxStatus'
import { SignOut } from '../outbox/SignOut'
import { UnitSwitch } from './UnitSwitch'
import { LightSwitch } from './LightSwitch'
import { Mark } from './Mark'
import styles from './shell.module.css'

const ROOMS = [
  { href: '/members', name: 'Members', also: '/riders' },
  { href: '/class', name: 'Class', also: '/class' },
  { href: '/bikes', name: 'Bikes', also: '/bikes' },
]

/** The frame of every page in the studio: where one is, where one can go, light and sign-out. */
export function Shell({ studio, person, children }: { studio: string; person: string; children: ReactNode }) {
  const path = usePathname()
  return (
    <>
      <header className={`${styles.bar} no-print`}>
        <Link href="/members" className={styles.brand} aria-label={`${studio}, members`}>
          <Mark />
          <span>{studio}</span>
        </Link>
        <nav className={styles.rooms} aria-label="Rooms">
          {ROOMS.map(({ href, name, also }) => {
            const here = path.startsWith(href) || path.startsWith(also)
            return (
              <Link
                key={href}
                href={href}
                className={here ? styles.here : styles.room}
                aria-current={here ? 'page' : undefined}
              >
                {name}
              </Link>
            )
          })}
        </nav>
        <span className={styles.person}>{person}</span>
        <OutboxStatus />
        <UnitSwitch />
        <LightSwitch />
        <SignOut />
      </header>
      <main className={styles.main}>{children}</main>
    </>
  )
}
