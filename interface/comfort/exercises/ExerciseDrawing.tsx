import type { Exercise, Pose } from '@/core/comfort/exercises'
import styles from './exercise.module.css'

/** An exercise with its drawing: where it begins faint, where it goes strong, and how often. */
export function ExerciseCard({ exercise }: { exercise: Exercise }) {
  return (
    <figure className={styles.card}>
      <div className={styles.drawn}>
        {exercise.drawn.map(({ from, to }, i) => (
          <svg key={i} viewBox="0 0 200 120" role="img" aria-label={`${exercise.name}, drawn`}>
            <line className={styles.ground} x1="8" x2="192" y1="116" y2="116" />
            {from && <PoseLines pose={from} className={styles.faint} />}
            <PoseLines pose={to} className={styles.strong} />
          </svg>
        ))}
      </div>
      <figcaption>
        <b>{exercise.name}</b>
        <span>{exercise.how}</span>
        <small>{exercise.howOften}</small>
      </figcaption>
    </figure>
  )
}

const path = (points: readonly (readonly [number, number])[]): string => points.map(([x, y]) => `${x},${y}`).join(' ')

function PoseLines({ pose, className }: { pose: Pose; className: string }) {
  return (
    <g className={className}>
      {pose.props?.map((line, i) => (
        <polyline key={`p${i}`} className={styles.prop} points={path(line)} />
      ))}
      {pose.limbs.map((line, i) => (
        <polyline key={i} points={path(line)} />
      ))}
      {pose.head && <circle cx={pose.head[0]} cy={pose.head[1]} r="8.5" />}
    </g>
  )
}
