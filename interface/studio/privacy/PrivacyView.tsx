import { StudioNav } from '../../frame/StudioNav'
import type { PrivacyPage } from '@/server/pages/studio/privacy'
import { AccessLog } from './AccessLog'
import { RetentionForm } from './RetentionForm'
import styles from './privacy.module.css'

/** What a studio owes its members: how long things are kept, and who saw and changed what. */
export function PrivacyView({ retention, ...log }: PrivacyPage) {
  return (
    <article className={styles.page}>
      <header>
        <StudioNav here="Privacy" />
        <h1>Privacy</h1>
      </header>
      <RetentionForm retention={retention} />
      <AccessLog {...log} />
    </article>
  )
}
