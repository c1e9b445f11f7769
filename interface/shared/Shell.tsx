'use client'
import Link from 'next/link'
import { usePathname } from 'next/navigation'
import type { ReactNode } from 'react'
import { OutboxStatus } from '../outbox/OutboxStatus'
import { Finder } from '../finder/Finder'
import { SignOut } from '../outbox/SignOut'
import { UnitSwitch } from './UnitSwitch'
import { LightSwitch } from './LightSwitch'
import { Mark } from './Mark'
import styles from './shell.module.css'

const ROOMS = [
  { href: '/members', name: 'Members', also: '/riders' },
  { href: '/class', name: 'Class', also: '/class' },
  { href: '/bikes', name: 'Bikes', also: '/bikes' },
] as const
const STUDIO = { href: '/studio', name: 'Studio', also: '/studio' } as const

/** The frame of every page in the studio: where one is, where one can go, light and sign-out. */
export function Shell({
  studio,
  person,
  manages,
  setsUp,
  children,
}: {
  studio: string
  person: string
  /** May change how the studio sets riders up. */
  manages: boolean
  /** Sets riders up, and so has an eye that can be looked at. */
  setsUp: boolean
  children: ReactNode
}) {
  const path = usePathname()
  return (
    <>
      <header className={`${styles.bar} no-print`}>
        <Link href="/members" className={styles.brand} aria-label={`${studio}, members`}>
          <Mark />
          <span>{studio}</span>
        </Link>
        <nav className={styles.rooms} aria-label="Rooms">
          {[...ROOMS, ...(manages ? [STUDIO] : [])].map(({ href, name, also }) => {
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
        {setsUp ? (
          <Link href="/eye" className={styles.person} title="Your eye, beside an instrument">
            {person}
          </Link>
        ) : (
          <span className={styles.person}>{person}</span>
        )}
        <Finder />
        <OutboxStatus />
        <UnitSwitch />
        <LightSwitch />
        <SignOut />
      </header>
      <main className={styles.main}>{children}</main>
    </>
  )
}
