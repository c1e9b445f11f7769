'use client'
import { usePathname } from 'next/navigation'
import { MenuOutlined } from '@ant-design/icons'
import { useState, type ReactNode } from 'react'
import { OutboxStatus } from './outboxStatus/OutboxStatus'
import { Finder } from './finder/Finder'
import { SignOut } from './outboxStatus/SignOut'
import { BarButton } from '../kit/BarButton'
import { Shortcuts, type ShortcutKeys } from './Shortcuts'
import { UnitSwitch } from '../kit/theme/UnitSwitch'
import { LightSwitch } from '../kit/theme/LightSwitch'
import { Mark } from '../kit/Mark'
import { Link } from '../kit/Link'
import styles from './shell.module.css'

const ROOMS = [
  { href: '/today', name: 'Today', also: '/today' },
  { href: '/members', name: 'Members', also: '/riders' },
  { href: '/class', name: 'Class', also: '/class' },
  { href: '/bikes', name: 'Bikes', also: '/bikes' },
] as const
const PAGE_KEYS: ShortcutKeys = [
  ['/', 'find a rider’s numbers'],
  ['Tab', 'to the next thing'],
  ['Space, arrows', 'on the floor: pick a rider up, carry them to another bike'],
  ['?', 'these keys'],
]
const STUDIO = { href: '/studio', name: 'Studio', also: '/studio' } as const

/** The frame of every page in the studio: where one is, where one can go, light and sign-out. */
export function Shell({
  studio,
  person,
  manages,
  idleMinutes,
  children,
}: {
  studio: string
  person: string
  /** May change how the studio sets riders up. */
  manages: boolean
  /** On a shared tablet, after how many minutes without a touch it locks. */
  idleMinutes?: number
  children: ReactNode
}) {
  const path = usePathname()
  /** On a phone the rest of the bar is behind one button. */
  const [open, setOpen] = useState(false)
  return (
    <>
      <header className={`${styles.bar} no-print`}>
        <Link href="/today" className={styles.brand} aria-label={`${studio}, today`}>
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
                className={`${here ? styles.here : styles.room} ${href === STUDIO.href ? styles.studio : ''}`}
                aria-current={here ? 'page' : undefined}
              >
                {name}
              </Link>
            )
          })}
        </nav>
        <Finder />
        <Shortcuts keys={PAGE_KEYS} />
        <OutboxStatus />
        <BarButton
          className={styles.more}
          aria-label="More"
          aria-expanded={open}
          aria-controls="bar-tools"
          onClick={() => setOpen(!open)}
        >
          <MenuOutlined />
        </BarButton>
        <div id="bar-tools" className={styles.tools} data-open={open || undefined} onClick={() => setOpen(false)}>
          {manages && (
            <Link href={STUDIO.href} className={`${styles.person} ${styles.studioInMenu}`}>
              {STUDIO.name}
            </Link>
          )}
          <Link href="/account" className={styles.person} title="Your account">
            {person}
          </Link>
          <UnitSwitch />
          <LightSwitch />
          <SignOut idleMinutes={idleMinutes} />
        </div>
      </header>
      <main className={styles.main}>{children}</main>
    </>
  )
}
