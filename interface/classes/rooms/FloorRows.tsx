import type { ReactNode } from 'react'
import { floorRows } from '@/core/classes/planning/floorRows'
import styles from './floorRows.module.css'

type PlacedBike = Readonly<{ bikeId: string; xM: number; yM: number }>

/**
 * The bikes of a room row by row as seen from the instructor's wall, none over another; on a phone one row
 * fills the width, and a swipe leads to the next.
 */
export function FloorRows<B extends PlacedBike>({
  bikes,
  widthM,
  label,
  tall = false,
  children,
}: {
  bikes: readonly B[]
  widthM: number
  label: string
  /** Rows share the height there is. */
  tall?: boolean
  children: (bike: B) => ReactNode
}) {
  const byId = new Map(bikes.map((bike) => [bike.bikeId, bike]))
  const rows = floorRows(
    bikes.map(({ bikeId, xM, yM }) => ({ id: bikeId, xM, yM })),
    widthM,
  )
  const longest = rows.reduce((most, row) => Math.max(most, row.length), 1)
  return (
    <section className={tall ? styles.tall : styles.floor} aria-label={label}>
      <p className={styles.wall}>
        <span>instructor</span>
      </p>
      <div className={styles.rows} tabIndex={-1}>
        {rows.map((row, r) => (
          <ul key={r} className={styles.row} aria-label={`Row ${r + 1}`} data-columns={Math.min(3, row.length)}>
            {row.map(({ id, at }) => (
              <li
                key={id}
                style={{ left: `${100 * (at - 0.5 / longest)}%`, width: `${100 / longest}%` }}
                className={styles.place}
              >
                {children(byId.get(id)!)}
              </li>
            ))}
          </ul>
        ))}
      </div>
      {rows.length > 1 && <p className={styles.hint}>{rows.length} rows: swipe</p>}
    </section>
  )
}
