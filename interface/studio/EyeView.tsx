'use client'
import { CartesianGrid, ReferenceArea, ResponsiveContainer, Scatter, ScatterChart, XAxis, YAxis } from 'recharts'
import type { EyePairs } from '@/core/setups/learning/eyePairs'
import type { EyeError } from '@/core/setups/learning/observerFromPairs'
import { KNEE_BY_EYE_CUTS_DEG } from '@/core/base/measurementNoise'
import { formatEye } from '@/core/messages/studio/eye'
import styles from './eyeView.module.css'

type Props = Readonly<{ pairs: EyePairs; knee: EyeError; plumb: EyeError }>

const WORDS = ['locked', 'slightBend', 'deepBend'] as const
const WORD_NAME = ['Locked', 'Slight bend', 'Deep bend']

/** How one's own eye strays, in a sentence and drawn: what it saw beside what the instrument read. */
export function EyeView({ pairs, knee, plumb }: Props) {
  const points = pairs.knee.map(({ seen, read }, i) => ({ read, word: WORDS.indexOf(seen) + 0.16 * ((i % 5) - 2) }))
  return (
    <article className={styles.page}>
      <h1>Your eye</h1>
      <p className={styles.lead}>
        Where you looked at a knee and it was measured at the same mark, the two are laid beside each other. Only you
        see this page. What is learned is used when you set riders up.
      </p>
      <p className={styles.sentence} data-empty={points.length === 0 || undefined}>
        {formatEye('knees', knee)}
      </p>
      {points.length > 0 && (
        <figure className={styles.chart}>
          <ResponsiveContainer width="100%" height={260}>
            <ScatterChart margin={{ top: 12, right: 20, bottom: 24, left: 20 }}>
              <CartesianGrid stroke="var(--line)" />
              <ReferenceArea
                x1={KNEE_BY_EYE_CUTS_DEG.locked}
                x2={KNEE_BY_EYE_CUTS_DEG.deepBend}
                fill="var(--good)"
                fillOpacity={0.12}
              />
              <XAxis
                type="number"
                dataKey="read"
                domain={[0, 60]}
                stroke="var(--soft)"
                label={{ value: 'measured bend, degrees', position: 'bottom', fill: 'var(--soft)' }}
              />
              <YAxis
                type="number"
                dataKey="word"
                domain={[-0.5, 2.5]}
                ticks={[0, 1, 2]}
                tickFormatter={(word: number) => WORD_NAME[word] ?? ''}
                width={96}
                stroke="var(--soft)"
              />
              <Scatter data={points} fill="var(--act)" isAnimationActive={false} />
            </ScatterChart>
          </ResponsiveContainer>
          <figcaption>
            A true eye says locked left of the shaded band, slightly bent inside it, deeply bent right of it.
          </figcaption>
        </figure>
      )}
      <p className={styles.sentence}>{formatEye('the knee over the pedal', plumb)}</p>
      <p className={styles.quiet}>
        To learn more: look first and say what you see, then measure without changing the bike. Both stay in the set-up.
      </p>
    </article>
  )
}
