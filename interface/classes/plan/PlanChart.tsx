'use client'
import { Area, CartesianGrid, ComposedChart, Line, ReferenceArea, ResponsiveContainer, XAxis, YAxis } from 'recharts'
import { totalMinutes, type Block } from '@/core/classes/plan/blocks'
import styles from './blocks.module.css'

/** How high an effort is drawn, of 100; ours. */
const HEIGHT = { recovery: 38, easy: 46, steady: 58, hard: 72 } as const

/** The class over its minutes: turns as a line, effort as the land below it, standing marked. */
export function PlanChart({ blocks }: { blocks: readonly Block[] }) {
  const total = totalMinutes(blocks)
  const points = blocks.flatMap((block, i) => {
    const from = totalMinutes(blocks.slice(0, i))
    const at = { turns: block.rpm, effort: HEIGHT[block.effort] }
    return [
      { ...at, minute: from },
      { ...at, minute: from + block.minutes - 0.001 },
    ]
  })
  return (
    <figure className={styles.chart} aria-label="The class over its minutes: turns a minute, effort, standing">
      <ResponsiveContainer width="100%" height={190}>
        <ComposedChart data={points} margin={{ top: 8, right: 8, bottom: 0, left: -18 }}>
          <CartesianGrid stroke="var(--line)" vertical={false} />
          {blocks.map((block, i) => {
            const from = totalMinutes(blocks.slice(0, i))
            return (
              block.posture === 'standing' && (
                <ReferenceArea
                  key={block.id}
                  x1={from}
                  x2={from + block.minutes}
                  fill="var(--kit)"
                  fillOpacity={0.16}
                  label={{ value: 'standing', position: 'insideTop', fill: 'var(--soft)', fontSize: 13 }}
                />
              )
            )
          })}
          <XAxis
            type="number"
            dataKey="minute"
            domain={[0, Math.max(1, total)]}
            ticks={Array.from({ length: Math.floor(total / 5) + 1 }, (_, i) => 5 * i)}
            stroke="var(--soft)"
            tick={{ fontSize: 13 }}
          />
          <YAxis domain={[30, 120]} ticks={[40, 60, 80, 100, 120]} stroke="var(--soft)" tick={{ fontSize: 13 }} />
          <Area
            type="linear"
            dataKey="effort"
            stroke="none"
            fill="var(--bar)"
            fillOpacity={0.75}
            isAnimationActive={false}
          />
          <Line
            type="linear"
            dataKey="turns"
            stroke="var(--act)"
            strokeWidth={3}
            dot={false}
            isAnimationActive={false}
          />
        </ComposedChart>
      </ResponsiveContainer>
      <figcaption>Line: turns a minute. Land: effort.</figcaption>
    </figure>
  )
}
