'use client'
import { useDraggable } from '@dnd-kit/core'
import type { ReactNode } from 'react'
import styles from './room.module.css'

/** Anything on a room's plan that can be picked up. */
export function Thing({
  id,
  label,
  chosen,
  left,
  top,
  onChoose,
  children,
}: {
  id: string
  label: string
  chosen: boolean
  left: number
  top: number
  onChoose: () => void
  children: ReactNode
}) {
  const { setNodeRef, listeners, transform } = useDraggable({ id, data: { name: label } })
  const shift = transform ? `translate(${transform.x}px, ${transform.y}px) ` : ''
  return (
    <button
      ref={setNodeRef}
      type="button"
      {...listeners}
      aria-label={label}
      aria-pressed={chosen}
      className={chosen ? styles.thingChosen : styles.thing}
      style={{ left, top, transform: `${shift}translate(-50%, -50%)` }}
      onClick={onChoose}
      onFocus={onChoose}
    >
      {children}
    </button>
  )
}

/** A bike from above, to scale: wheel in front, saddle behind, its number in the middle. */
export function BikeSeenFromAbove({
  number,
  headingDeg,
  scale,
  tight,
  turned,
}: {
  number: number
  headingDeg: number
  scale: number
  tight: boolean
  turned: boolean
}) {
  return (
    <svg
      className={tight ? styles.bikeTight : styles.bike}
      width={0.7 * scale}
      height={1.3 * scale}
      viewBox="-35 -65 70 130"
      aria-hidden="true"
    >
      <g transform={`rotate(${headingDeg})`}>
        <path className={styles.sight} d="M-9 -63L0 -76L9 -63" />
        <rect className={styles.wheel} x="-6" y="-60" width="12" height="42" rx="6" />
        <path className={styles.bars} d="M-24 -22q4 -12 10 -12h28q6 0 10 12" />
        <rect className={styles.frameTube} x="-4" y="-24" width="8" height="60" rx="4" />
        <path className={styles.saddle} d="M0 18q6 6 5 16q10 6 8 18q-2 10 -13 10t-13 -10q-2 -12 8 -18q-1 -10 5 -16Z" />
      </g>
      <circle className={turned ? styles.discTurned : styles.disc} r="19" />
      <text className={styles.number} y="9" textAnchor="middle">
        {number}
      </text>
    </svg>
  )
}
