import Link from 'next/link'
import styles from './riderNav.module.css'

const PAGES = [
  ['', 'Numbers'],
  ['/reasons', 'Reasons'],
  ['/story', 'Story'],
] as const

/** From one page of a rider to the next: their numbers, what is felt and why, and everything in one line of time. */
export function RiderNav({ memberId, here }: { memberId: string; here: (typeof PAGES)[number][1] }) {
  return (
    <nav className={`${styles.nav} no-print`} aria-label="Of this rider">
      {PAGES.map(([path, name]) =>
        name === here ? (
          <b key={name} aria-current="page">
            {name}
          </b>
        ) : (
          <Link key={name} href={`/riders/${memberId}${path}`}>
            {name}
          </Link>
        ),
      )}
    </nav>
  )
}
