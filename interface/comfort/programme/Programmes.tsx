'use client'
import { Button } from 'antd'
import { useRouter } from 'next/navigation'
import { useState } from 'react'
import { PROGRAMME_CAUTION } from '@/core/messages/comfort/programme'
import { command } from '../../commands/command'
import { useAction } from '../../commands/useAction'
import { useUndoable } from '../../commands/useUndoable'
import { GiveProgramme } from './GiveProgramme'
import type { ProgrammesText, ProgrammeText } from './programmeText'
import { Shares } from './Shares'
import styles from './programme.module.css'

type ProgrammesProps = Readonly<{
  memberId: string
  programmes: ProgrammesText
  /** Asked before the first note about a rider; null where they agreed. */
  asks: string | null
}>

/** The exercises a rider was given, how they go, and whether the cue holds more often since. */
export function Programmes({ memberId, programmes: { given, subjects }, asks }: ProgrammesProps) {
  const [giving, setGiving] = useState(false)
  return (
    <section className={styles.part} aria-label="Exercises" id="exercises">
      <h2>Exercises</h2>
      {given.length === 0 && (
        <p className={styles.none} data-empty>
          {subjects.length > 0
            ? 'None given. For what was seen or felt, some weeks of exercises can go to the rider’s own page.'
            : 'None given. Exercises are given for a sign noted in class or for something that bothers the rider.'}
        </p>
      )}
      {given.map((one) => (
        <GivenProgramme key={one.id} memberId={memberId} programme={one} />
      ))}
      {given.length > 0 && <p className={styles.quiet}>{PROGRAMME_CAUTION}</p>}
      {subjects.length > 0 && (
        <Button size="large" className="no-print" onClick={() => setGiving(true)}>
          Give exercises
        </Button>
      )}
      {giving && <GiveProgramme memberId={memberId} subjects={subjects} asks={asks} close={() => setGiving(false)} />}
    </section>
  )
}

function GivenProgramme({ memberId, programme }: Readonly<{ memberId: string; programme: ProgrammeText }>) {
  const router = useRouter()
  const { change, busy } = useUndoable()
  const { act, busy: isResuming } = useAction()
  const { id: programmeId, subject, state, status, given, exercises, response, shares } = programme
  const of = { memberId, programmeId }
  const end = () =>
    change({
      action: () => command('comfort.endProgramme', of),
      done: `${subject}: exercises ended.`,
      undo: () => command('comfort.reopenProgramme', of),
    })
  const resume = async () => {
    if (await act(() => command('comfort.resumeProgramme', of))) router.refresh()
  }
  const isOpen = state === 'running' || state === 'stopped'
  return (
    <article className={styles.given} data-state={state}>
      <header>
        <h3>{subject}</h3>
        <span className={styles.status}>{status}</span>
        <span className={styles.by}>{given}</span>
        {isOpen && (
          <span className={`${styles.ways} no-print`}>
            {state === 'stopped' && (
              <Button size="large" loading={isResuming} onClick={resume}>
                Go on with it
              </Button>
            )}
            <Button size="large" type="text" loading={busy} onClick={end}>
              End
            </Button>
          </span>
        )}
      </header>
      {state === 'stopped' && (
        <p className={styles.flag}>
          Taken off the rider’s page. Refer them first; go on only once a clinician has said so.
        </p>
      )}
      <dl className={styles.progress}>
        {exercises.map(({ name, rhythm, done }) => (
          <div key={name}>
            <dt>{name}</dt>
            <dd>{rhythm}</dd>
            <dd>{done}</dd>
          </div>
        ))}
      </dl>
      {response && <p>{response}</p>}
      {shares.length > 0 && <Shares shares={shares} />}
    </article>
  )
}
