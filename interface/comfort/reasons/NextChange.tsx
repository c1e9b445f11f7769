'use client'
import { Button, Input } from 'antd'
import { useState } from 'react'
import { TRIAL_TEXT } from '@/core/messages/comfort/complaints'
import { capitalized } from '@/core/messages/words/phrases'
import { ScoreRow } from '../../kit/ScoreRow'
import { useAction } from '../../commands/useAction'
import { useIdempotencyKey } from '../../commands/useIdempotencyKey'
import { command } from '../../commands/command'
import styles from './reasons.module.css'
import type { ComplaintSummary, ReasonsPage, ShownChange } from './reasonsPage'

type Props = Readonly<{
  memberId: string
  page: ReasonsPage
  complaints: readonly ComplaintSummary[]
  mayTry: boolean
  changed: () => void
}>

/** The one next step: a change that may be put on trial, or what else puts the likeliest cause right. */
export function NextChange({ memberId, page, complaints, mayTry, changed }: Props) {
  const { change, orSlide, remedy, noChange, cue, touched, bike, numbers } = page
  const [slide, setSlide] = useState(false)
  const [opened, setOpened] = useState(false)
  const shown = slide && orSlide ? orSlide : change
  const isSaddle = shown?.shown.axis === 'tilt'
  return (
    <section className={styles.next} aria-label="The next step">
      <p className={styles.on}>
        {page.running.length > 0 && 'Beside the trial: '}
        {bike ?? 'No bike yet'}
        {numbers && <b>{numbers}</b>}
      </p>
      <h2>{shown ? shown.text : (noChange ?? remedy)}</h2>
      {shown && shown.expects.length > 0 && <p className={styles.expects}>{capitalized(shown.expects.join('; '))}.</p>}
      {shown && !slide && page.changeWhy && <p className={styles.expects}>{page.changeWhy}</p>}
      {!shown && page.sentence && <p className={styles.expects}>{page.sentence}</p>}
      {shown?.large && !slide && (
        <p className={styles.large}>A large step for one change{orSlide ? ': the marks are far apart.' : '.'}</p>
      )}
      {orSlide && (
        <Button size="large" onClick={() => setSlide(!slide)}>
          {slide ? 'Back to the seat height' : `Or the slide: ${orSlide.text}`}
        </Button>
      )}
      {isSaddle && (
        <p className={styles.large}>
          The saddle is everybody’s.
          {touched.length > 0 ? ` It touches ${touched.join(', ')}.` : ' Nobody else rode it lately.'}
        </p>
      )}
      {page.wider && <p className={styles.expects}>{page.wider} Taking it moves nothing.</p>}
      {cue && <p className={styles.cue}>Say: “{cue}”</p>}
      {shown && mayTry && !opened && (
        <Button size="large" type={page.running.length > 0 ? 'default' : 'primary'} onClick={() => setOpened(true)}>
          Try it
        </Button>
      )}
      {shown && mayTry && opened && (
        <BeginTrial
          memberId={memberId}
          shown={shown}
          complaints={complaints}
          isSecond={page.running.length > 0}
          close={() => setOpened(false)}
          changed={changed}
        />
      )}
    </section>
  )
}

/** How long, how it is before, and why where another trial is running. */
function BeginTrial({
  memberId,
  shown,
  complaints,
  isSecond,
  close,
  changed,
}: Readonly<{
  memberId: string
  shown: ShownChange
  complaints: readonly ComplaintSummary[]
  isSecond: boolean
  close: () => void
  changed: () => void
}>) {
  const { act, busy } = useAction()
  const { idFor, forget } = useIdempotencyKey()
  const [complaintId, setComplaint] = useState(complaints[0].id)
  const chosen = complaints.find(({ id }) => id === complaintId) ?? complaints[0]
  const [rated, setRated] = useState<number | null>(null)
  const [weeks, setWeeks] = useState<1 | 2>(2)
  const [reason, setReason] = useState('')
  const before = rated ?? chosen.strength
  async function begin() {
    const input = { memberId, complaintId: chosen.id, shown: shown.shown, weeks, ratingBefore: before, reason }
    if (!(await act(() => command('comfort.startTrial', input, idFor(input))))) return
    forget()
    close()
    changed()
  }
  return (
    <div className={styles.begin}>
      {complaints.length > 1 && (
        <div className={styles.choices} role="group" aria-label="For which complaint">
          {complaints.map(({ id, text }) => (
            <button key={id} type="button" aria-pressed={id === chosen.id} onClick={() => setComplaint(id)}>
              {text}
            </button>
          ))}
        </div>
      )}
      <p>How is it now, before the change?</p>
      <ScoreRow label="Before the change, 0 nothing, 10 as bad as can be" given={before} give={setRated} />
      <div className={styles.choices} role="group" aria-label="How long">
        {([1, 2] as const).map((n) => (
          <button key={n} type="button" aria-pressed={weeks === n} onClick={() => setWeeks(n)}>
            {n === 1 ? 'One week' : 'Two weeks'}
          </button>
        ))}
      </div>
      <p className={styles.quiet}>{TRIAL_TEXT}</p>
      {isSecond && (
        <>
          <p className={styles.large}>A trial is running: with two changes nobody knows which one helped.</p>
          <Input
            size="large"
            maxLength={200}
            aria-label="Why a second change should not wait"
            placeholder="Why should it not wait?"
            value={reason}
            onChange={(event) => setReason(event.target.value)}
          />
        </>
      )}
      <div className={styles.choices}>
        <Button size="large" onClick={close}>
          Not now
        </Button>
        <Button size="large" type="primary" loading={busy} disabled={isSecond && reason.trim() === ''} onClick={begin}>
          Begin the trial
        </Button>
      </div>
    </div>
  )
}
