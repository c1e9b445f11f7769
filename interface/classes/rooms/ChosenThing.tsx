'use client'
import { Button } from 'antd'
import { TURNED_FROM_DEG } from '@/core/classes/planning/places'
import type { RoomPlan, FloorPosition } from '@/core/classes/planning/roomPlan'
import { nearestPlace, turnDeg } from '@/core/classes/planning/sightLine'
import styles from './room.module.css'
import type { Draft, ThingKey } from './roomDraft'

/** How far one looks aside from here, degrees: to the instructor or the nearest screen, whichever is farther. */
export function lookAside(plan: RoomPlan, place: FloorPosition): number {
  const screen = nearestPlace(place, plan.screens)
  return Math.max(Math.abs(turnDeg(place, plan.instructor)), screen ? Math.abs(turnDeg(place, screen)) : 0)
}

/** What is chosen on the plan: how far a bike looks aside, and its turns. */
export function ChosenThing({
  chosen,
  draft,
  numberOf,
  turn,
  takeOut,
}: {
  chosen: ThingKey | null
  draft: Draft
  numberOf: (id: string) => number
  turn: (byDeg: number) => void
  takeOut: () => void
}) {
  const [kind, id] = (chosen ?? '').split(':')
  const place = kind === 'bike' ? draft.places[id] : undefined
  if (!chosen) return <p className={styles.chosen}>Choose something on the plan.</p>
  if (!place)
    return (
      <div className={styles.chosen}>
        <b>{kind === 'instructor' ? 'The instructor’s place' : `${kind[0].toUpperCase()}${kind.slice(1)}`}</b>
        {kind !== 'instructor' && (
          <Button size="large" onClick={takeOut}>
            Remove
          </Button>
        )}
      </div>
    )
  const screen = nearestPlace(place, draft.plan.screens)
  const aside = (deg: number) =>
    Math.abs(deg) < 1 ? 'straight ahead' : `${Math.round(Math.abs(deg))}° to the ${deg > 0 ? 'right' : 'left'}`
  return (
    <div className={styles.chosen}>
      <b>Bike {numberOf(id)}</b>
      <p>Instructor {aside(turnDeg(place, draft.plan.instructor))}</p>
      {screen && <p>Nearest screen {aside(turnDeg(place, screen))}</p>}
      {lookAside(draft.plan, place) > TURNED_FROM_DEG && (
        <p className={styles.warn}>More than {TURNED_FROM_DEG}°: not for stiff necks and sore hips.</p>
      )}
      <div className={styles.turns}>
        <Button size="large" aria-label="Turn left" onClick={() => turn(-5)}>
          ↺ 5°
        </Button>
        <Button size="large" aria-label="Turn right" onClick={() => turn(5)}>
          ↻ 5°
        </Button>
        <Button size="large" onClick={takeOut}>
          Remove
        </Button>
      </div>
    </div>
  )
}
