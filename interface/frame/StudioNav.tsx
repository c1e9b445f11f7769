import { PageNav } from './PageNav'
import styles from './pageNav.module.css'

const PAGES = [
  ['/studio', 'How we set up'],
  ['/studio/picture', 'Picture'],
  ['/studio/people', 'People'],
  ['/studio/devices', 'Devices'],
  ['/studio/files', 'Files'],
  ['/studio/privacy', 'Privacy'],
  ['/studio/operation', 'Operation'],
] as const

/** From one page of the studio to the next, for its managers. */
export function StudioNav({ here }: { here: (typeof PAGES)[number][1] }) {
  return (
    <div className={styles.ownLine}>
      <PageNav label="Of the studio" pages={PAGES} here={here} />
    </div>
  )
}
