'use client'
import {
  Bar,
  BarChart,
  CartesianGrid,
  Cell,
  ErrorBar,
  ReferenceLine,
  ResponsiveContainer,
  XAxis,
  YAxis,
} from 'recharts'
import type { StudioPrior } from '@/core/setups/learning/studioPrior'
import { PRIOR_PART_NAME } from '@/core/messages/setups/priorParts'
import { PRIOR_PARTS } from '@/core/riders/rider/prior'
import styles from './studioView.module.css'

/** Moved by less than this many of its own spreads a part may as well not have moved. */
const CLEAR = 2

/** How far this studio's riders lie from the published proportions, in spreads of riders, with how sure that is. */
export function LearnedChart({ learned }: { learned: StudioPrior | null }) {
  if (!learned) return <p className={styles.quiet}>Being worked out; open the page again in a moment.</p>
  if (Object.keys(learned.prior).length === 0)
    return (
      <p className={styles.quiet}>
        {learned.setups === 1 ? 'One finished, checked set-up' : `${learned.setups} finished, checked set-ups`} so far;
        with ten the studio begins to learn.
      </p>
    )
  const bars = PRIOR_PARTS.map((part) => ({ name: PRIOR_PART_NAME[part], ...learned.moved[part] }))
  return (
    <figure className={styles.learned}>
      <figcaption className={styles.quiet}>
        From {learned.setups} set-ups: how far the riders here lie from the published proportions, in spreads of riders.
        Bars in colour are clear of chance.
      </figcaption>
      <ResponsiveContainer width="100%" height={30 * bars.length + 40}>
        <BarChart data={bars} layout="vertical" margin={{ left: 12, right: 24, top: 8, bottom: 8 }}>
          <CartesianGrid stroke="var(--line)" horizontal={false} />
          <XAxis
            type="number"
            domain={[-1.5, 1.5]}
            ticks={[-1.5, -1, -0.5, 0, 0.5, 1, 1.5]}
            tickFormatter={(tick: number) => String(tick).replace('-', '−')}
            stroke="var(--soft)"
          />
          <YAxis type="category" dataKey="name" width={170} stroke="var(--soft)" interval={0} />
          <ReferenceLine x={0} stroke="var(--soft)" />
          <Bar dataKey="shift" isAnimationActive={false}>
            {bars.map(({ name, shift, sd }) => (
              <Cell key={name} fill={Math.abs(shift) > CLEAR * sd ? 'var(--good)' : 'var(--bar)'} />
            ))}
            <ErrorBar dataKey="sd" direction="x" stroke="var(--soft)" />
          </Bar>
        </BarChart>
      </ResponsiveContainer>
    </figure>
  )
}
