import type { ShareText } from './programmeText'
import styles from './programme.module.css'

const percent = (share: number): string => `${(100 * share).toFixed(1)}%`

/** Shares under each other from none to all, each a point on its 95 % interval. */
export function Shares({ shares }: Readonly<{ shares: readonly ShareText[] }>) {
  return (
    <div className={styles.shares} role="img" aria-label={shares.map(({ name, text }) => `${name} ${text}`).join(', ')}>
      {shares.map(({ name, text, share, low, high }) => (
        <div key={name} className={styles.share}>
          <span>{name}</span>
          <span className={styles.track}>
            <i style={{ left: percent(low), width: percent(high - low) }} />
            <b style={{ left: percent(share) }} />
          </span>
          <span>{text}</span>
        </div>
      ))}
      <div className={styles.share}>
        <span />
        <span className={styles.ends}>
          <span>never held</span>
          <span>always</span>
        </span>
        <span />
      </div>
    </div>
  )
}
