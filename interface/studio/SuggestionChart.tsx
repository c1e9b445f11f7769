'use client'
import {
  CartesianGrid,
  ErrorBar,
  ReferenceLine,
  ResponsiveContainer,
  Scatter,
  ScatterChart,
  XAxis,
  YAxis,
} from 'recharts'
import type { StatedGroup, SuggestionRecord } from '@/core/setups/learning/firstSuggestions'
import { formatSuggestionRecord } from '@/core/messages/studio/suggestions'
import styles from './studioView.module.css'

const percent = (share: number) => `${Math.round(100 * share)}`

/** Both axes run over shares, in percent. */
const SHARES = {
  type: 'number',
  domain: [0, 1],
  ticks: [0, 0.25, 0.5, 0.75, 1],
  tickFormatter: percent,
  stroke: 'var(--soft)',
} as const

/** A group with its bar down and up, cut off where the chart ends. */
const withinChart = (group: StatedGroup) => ({
  ...group,
  bar: [Math.min(group.se, group.right), Math.min(group.se, 1 - group.right)],
})

/** Whether the first saddles suggested were right as often as predicted: on the line they were. */
export function SuggestionChart({ record }: { record: SuggestionRecord | null }) {
  if (!record) return <p className={styles.quiet}>Being worked out; open the page again in a moment.</p>
  const sentence = formatSuggestionRecord(record)
  if (record.groups.length < 2) return <p className={styles.quiet}>{sentence}</p>
  return (
    <figure className={styles.learned}>
      <figcaption className={styles.quiet}>
        {sentence} Each point is about {record.groups[0].count} set-ups; its bar, what chance does alone.
      </figcaption>
      <ResponsiveContainer width="100%" height={320} className={styles.square}>
        <ScatterChart margin={{ left: 4, right: 24, top: 12, bottom: 28 }}>
          <CartesianGrid stroke="var(--line)" />
          <XAxis
            dataKey="stated"
            {...SHARES}
            label={{ value: 'said to be right, in 100', position: 'bottom', fill: 'var(--soft)' }}
          />
          <YAxis
            dataKey="right"
            {...SHARES}
            label={{ value: 'were right', angle: -90, position: 'insideLeft', fill: 'var(--soft)' }}
          />
          <ReferenceLine
            segment={[
              { x: 0, y: 0 },
              { x: 1, y: 1 },
            ]}
            stroke="var(--soft)"
            strokeDasharray="5 5"
          />
          <Scatter data={record.groups.map(withinChart)} fill="var(--act)" isAnimationActive={false}>
            <ErrorBar dataKey="bar" direction="y" stroke="var(--act)" />
          </Scatter>
        </ScatterChart>
      </ResponsiveContainer>
    </figure>
  )
}
