'use client'
import { Button, Modal } from 'antd'
import { useRouter } from 'next/navigation'
import { useState } from 'react'
import { DEFAULT_WEEKS, MAX_EXERCISES, PROGRAMME_WEEKS } from '@/core/comfort/programme/programme'
import { CONSENT_TEXT } from '@/core/messages/riders/consent'
import { PROGRAMME_CAUTION } from '@/core/messages/comfort/programme'
import type { Exercise } from '@/core/comfort/exercises'
import { command } from '../../commands/command'
import { useAction } from '../../commands/useAction'
import { useIdempotencyKey } from '../../commands/useIdempotencyKey'
import { Choices } from '../limits/fields'
import { ExerciseCard } from '../exercises/ExerciseDrawing'
import type { SubjectText } from './programmeText'
import styles from './programme.module.css'

type GiveProgrammeProps = Readonly<{
  memberId: string
  /** At least one. */
  subjects: readonly SubjectText[]
  /** The wording of the consent, where the rider has not agreed to notes yet. */
  asks: string | null
  close: () => void
}>

const WEEKS = PROGRAMME_WEEKS.map(String)
const WEEKS_NAME = Object.fromEntries(WEEKS.map((weeks) => [weeks, `${weeks} weeks`]))

/** Chooses exercises for what was seen or felt, and for how long. */
export function GiveProgramme({ memberId, subjects, asks, close }: GiveProgrammeProps) {
  const router = useRouter()
  const { act, busy } = useAction()
  const { idFor } = useIdempotencyKey()
  const [of, setOf] = useState(subjects[0].name)
  const subject = subjects.find(({ name }) => name === of) ?? subjects[0]
  const [chosen, setChosen] = useState<readonly string[]>(firstOf(subject))
  const [weeks, setWeeks] = useState(String(DEFAULT_WEEKS))
  const [more, setMore] = useState(false)
  const shown = more ? [...subject.offered, ...subject.others] : subject.offered
  const toggle = ({ id }: Exercise) =>
    setChosen((before) => (before.includes(id) ? before.filter((one) => one !== id) : [...before, id]))
  async function give() {
    const exercises = shown.flatMap(({ id }) => (chosen.includes(id) ? id : []))
    const input = { memberId, about: subject.about, exercises, weeks: Number(weeks) as typeof DEFAULT_WEEKS }
    const sent = { ...input, ...(asks !== null && { agrees: true }) }
    if (!(await act(() => command('comfort.giveProgramme', sent, idFor(input))))) return
    close()
    router.refresh()
  }
  return (
    <Modal open onCancel={close} footer={null} title="Give exercises" width={720}>
      <div className={styles.form}>
        {subjects.length > 1 && (
          <Choices
            name="For"
            of={subjects.map(({ name }) => name)}
            named={Object.fromEntries(subjects.map(({ name }) => [name, name]))}
            chosen={subject.name}
            choose={(name) => {
              setOf(name)
              setMore(false)
              setChosen(firstOf(subjects.find((one) => one.name === name)!))
            }}
          />
        )}
        <div className={styles.choose} role="group" aria-label="Exercises">
          {shown.map((exercise) => (
            <button
              key={exercise.id}
              type="button"
              aria-pressed={chosen.includes(exercise.id)}
              disabled={!chosen.includes(exercise.id) && chosen.length >= MAX_EXERCISES}
              onClick={() => toggle(exercise)}
            >
              <ExerciseCard exercise={exercise} />
            </button>
          ))}
        </div>
        {!more && (
          <Button type="text" size="large" onClick={() => setMore(true)}>
            All exercises
          </Button>
        )}
        <Choices name="For so long" of={WEEKS} named={WEEKS_NAME} chosen={weeks} choose={setWeeks} />
        <p className={styles.quiet}>{PROGRAMME_CAUTION}</p>
        {asks !== null && (
          <blockquote className={styles.asks}>
            {CONSENT_TEXT.ask} {asks}
          </blockquote>
        )}
        <Button type="primary" size="large" block loading={busy} disabled={chosen.length === 0} onClick={give}>
          {asks === null ? 'Give to the rider' : 'They agree: give to the rider'}
        </Button>
      </div>
    </Modal>
  )
}

const firstOf = ({ offered }: SubjectText): readonly string[] => offered.slice(0, 1).map(({ id }) => id)
