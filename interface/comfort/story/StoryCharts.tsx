'use client'
import {
  CartesianGrid,
  Line,
  LineChart,
  ReferenceArea,
  ReferenceLine,
  ResponsiveContainer,
  Tooltip,
  XAxis,
  YAxis,
} from 'recharts'
import styles from './story.module.css'
import type { StoryPage } from './storyPage'

const INKS = ['var(--act)', 'var(--kit)', 'var(--ink)', 'var(--steel)']
const DASHES = ['', '8 4', '2 4', '12 4 2 4']
const DAY_MS = 86_400_000

const day = (ms: number): string =>
  new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short' }).format(new Date(ms))

/** How it felt over the rides with every change marked, and the knee's angle over time. */
export default function StoryCharts({ lines, knees, changes, rides, kneeWindowDeg }: StoryPage) {
  const all = [...lines.flatMap(({ points }) => points.map(({ ms }) => ms)), ...knees.map(({ ms }) => ms), ...rides]
  const domain: [number, number] = [Math.min(...all) - DAY_MS, Math.max(...all) + DAY_MS]
  const within = changes.filter(({ ms }) => ms >= domain[0] && ms <= domain[1])
  const points = [...new Set(lines.flatMap((line) => line.points.map(({ ms }) => ms)))]
    .sort((a, b) => a - b)
    .map((ms) => ({
      ms,
      ...Object.fromEntries(
        lines.map(({ name, points: own }) => [name, own.findLast((one) => one.ms === ms)?.rating ?? null]),
      ),
    }))
  const axis = {
    type: 'number' as const,
    dataKey: 'ms',
    domain,
    tickFormatter: day,
    stroke: 'var(--soft)',
    tick: { fontSize: 13 },
    minTickGap: 40,
  }
  const tooltip = {
    contentStyle: { background: 'var(--raised)', border: '1px solid var(--line)', color: 'var(--ink)' },
    labelFormatter: (ms: unknown) => day(Number(ms)),
  }
  return (
    <div className={styles.charts}>
      {lines.length > 0 && (
        <figure aria-label="How it felt over time, changes marked">
          <figcaption>How it felt, 0 to 10. Upright lines: numbers changed; ticks: rides.</figcaption>
          <ResponsiveContainer width="100%" height={220}>
            <LineChart data={points} margin={{ top: 8, right: 16, bottom: 0, left: -22 }}>
              <CartesianGrid stroke="var(--line)" vertical={false} />
              {within.map(({ ms }, i) => (
                <ReferenceLine key={i} x={ms} stroke="var(--kit)" strokeWidth={3} />
              ))}
              {rides.map((ms, i) => (
                <ReferenceLine
                  key={`ride ${i}`}
                  segment={[
                    { x: ms, y: 0 },
                    { x: ms, y: 0.5 },
                  ]}
                  stroke="var(--steel)"
                  strokeWidth={2}
                />
              ))}
              <XAxis {...axis} />
              <YAxis domain={[0, 10]} ticks={[0, 2, 4, 6, 8, 10]} stroke="var(--soft)" tick={{ fontSize: 13 }} />
              <Tooltip {...tooltip} formatter={(value) => `${String(value)} of 10`} />
              {lines.map(({ name }, i) => (
                <Line
                  key={name}
                  type="linear"
                  dataKey={name}
                  stroke={INKS[i % INKS.length]}
                  strokeDasharray={DASHES[i % DASHES.length]}
                  strokeWidth={3}
                  dot={{ r: 5, fill: INKS[i % INKS.length], strokeDasharray: '' }}
                  connectNulls
                  isAnimationActive={false}
                />
              ))}
            </LineChart>
          </ResponsiveContainer>
          <ul className={styles.legend}>
            {lines.map(({ name }, i) => (
              <li key={name}>
                <svg width="40" height="10" aria-hidden="true">
                  <line
                    x1="0"
                    x2="40"
                    y1="5"
                    y2="5"
                    stroke={INKS[i % INKS.length]}
                    strokeWidth="4"
                    strokeDasharray={DASHES[i % DASHES.length]}
                  />
                </svg>
                {name}
              </li>
            ))}
          </ul>
        </figure>
      )}
      {knees.length > 0 && (
        <figure aria-label="The knee at the bottom of the stroke over time">
          <figcaption>The knee’s bend at the bottom, degrees. The band is where this studio wants it.</figcaption>
          <ResponsiveContainer width="100%" height={180}>
            <LineChart data={[...knees]} margin={{ top: 8, right: 16, bottom: 0, left: -22 }}>
              <CartesianGrid stroke="var(--line)" vertical={false} />
              <ReferenceArea y1={kneeWindowDeg[0]} y2={kneeWindowDeg[1]} fill="var(--good)" fillOpacity={0.16} />
              {within.map(({ ms }, i) => (
                <ReferenceLine key={i} x={ms} stroke="var(--kit)" strokeWidth={3} />
              ))}
              <XAxis {...axis} />
              <YAxis domain={[10, 60]} ticks={[10, 20, 30, 40, 50, 60]} stroke="var(--soft)" tick={{ fontSize: 13 }} />
              <Tooltip {...tooltip} formatter={(value) => `${String(value)}°`} />
              <Line
                type="linear"
                dataKey="deg"
                name="Knee"
                stroke="var(--act)"
                strokeWidth={3}
                dot={{ r: 5, fill: 'var(--act)' }}
                isAnimationActive={false}
              />
            </LineChart>
          </ResponsiveContainer>
        </figure>
      )}
    </div>
  )
}
