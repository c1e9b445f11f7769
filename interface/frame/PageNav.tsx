import styles from './pageNav.module.css'
import { Link } from '../kit/Link'

/** One of the pages that belong together: its address and its name. */
type PageLink = readonly [href: string, name: string]

/** From one page to the next of those that belong together; the one shown is no link. */
export function PageNav({ label, pages, here }: { label: string; pages: readonly PageLink[]; here: string }) {
  return (
    <nav className={`${styles.nav} no-print`} aria-label={label}>
      {pages.map(([href, name]) =>
        name === here ? (
          <b key={name} aria-current="page">
            {name}
          </b>
        ) : (
          <Link key={name} href={href}>
            {name}
          </Link>
        ),
      )}
    </nav>
  )
}
