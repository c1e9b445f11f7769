'use client'
import { CheckOutlined } from '@ant-design/icons'
import { useState } from 'react'
import { PROGRAMME_CAUTION } from '@/core/messages/comfort/programme'
import { capitalized } from '@/core/messages/words/phrases'
import { ExerciseCard } from '../../comfort/exercises/ExerciseDrawing'
import { ownCommand } from '../../commands/command'
import { useAction } from '../../commands/useAction'
import type { OwnProgrammeSummary } from './ownProgrammeProps'
import styles from './ownProgramme.module.css'

type OwnProgrammeProps = Readonly<{ token: string; programme: OwnProgrammeSummary; referral: string }>

/** A member's exercises for some weeks: drawn, and ticked by the day. */
export function OwnProgramme({ token, programme, referral }: OwnProgrammeProps) {
  const { id, subject, isStopped, status, items, days } = programme
  if (isStopped)
    return (
      <section className={styles.programme} aria-label="Your exercises">
        <p className={styles.tag}>exercises, stopped</p>
        <p>
          Leave the exercises for {subject} out for now. {referral}
        </p>
      </section>
    )
  return (
    <section className={styles.programme} aria-label="Your exercises">
      <p className={styles.tag}>exercises, {status}</p>
      <h2>For {subject}</h2>
      {items.map(({ exercise, goes, done }, item) => (
        <div key={exercise.id} className={styles.item}>
          <ExerciseCard exercise={exercise} />
          {goes && <p className={styles.rhythm}>{capitalized(goes)}</p>}
          <Days token={token} programmeId={id} item={item} name={exercise.name} done={done} days={days} />
        </div>
      ))}
      <p className={styles.quiet}>{PROGRAMME_CAUTION}</p>
    </section>
  )
}

type DaysProps = Readonly<{
  token: string
  programmeId: string
  item: number
  name: string
  done: readonly string[]
  days: OwnProgrammeSummary['days']
}>

/** The last days of an exercise, each to tick; a tick can be taken back. */
function Days({ token, programmeId, item, name, done, days }: DaysProps) {
  const { act } = useAction()
  const [ticked, setTicked] = useState(done)
  const [sending, setSending] = useState<string | null>(null)
  async function toggle(day: string) {
    const input = { programmeId, item, day }
    const isTicked = ticked.includes(day)
    const id = crypto.randomUUID()
    setSending(day)
    const answer = await act(() =>
      isTicked
        ? ownCommand(token, 'ownPage.untickExercise', input, id)
        : ownCommand(token, 'ownPage.tickExercise', input, id),
    )
    setSending(null)
    if (answer) setTicked((before) => (isTicked ? before.filter((one) => one !== day) : [...before, day]))
  }
  return (
    <div className={styles.days} role="group" aria-label={`${name}: days done`}>
      {days.map(({ day, name: dayName }) => (
        <button
          key={day}
          type="button"
          aria-label={dayName}
          aria-pressed={ticked.includes(day)}
          disabled={sending !== null}
          onClick={() => void toggle(day)}
        >
          {dayName
            .split(' ')
            .slice(0, 2)
            .map((word) => (
              <span key={word}>{word}</span>
            ))}
          <CheckOutlined aria-hidden />
        </button>
      ))}
    </div>
  )
}
