import { StudioNav } from '../../frame/StudioNav'
import type { PrivacyPage } from '@/server/pages/studio/privacy'
import { AccessLog } from './AccessLog'
import { ConsentWording } from './ConsentWording'
import { RetentionForm } from './RetentionForm'
import styles from './privacy.module.css'

/** The consent's wording, the retention times and the access log. */
export function PrivacyView({ retention, wording, ...log }: PrivacyPage) {
  return (
    <article className={styles.page}>
      <header>
        <StudioNav here="Privacy" />
        <h1>Privacy</h1>
      </header>
      <ConsentWording key={wording.version} {...wording} />
      <RetentionForm retention={retention} />
      <AccessLog {...log} />
    </article>
  )
}
