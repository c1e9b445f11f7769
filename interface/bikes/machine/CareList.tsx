'use client'
import { Button, Input } from 'antd'
import { useRouter } from 'next/navigation'
import { useState } from 'react'
import type { CareDeed, CareInterval, CareIntervals, CarePart } from '@/core/bikes/care/care'
import { command } from '../../commands/command'
import { useAction } from '../../commands/useAction'
import { useIdempotencyKey } from '../../commands/useIdempotencyKey'
import parts from '../parts.module.css'
import { CareIntervalForm } from './CareIntervalForm'
import styles from './careList.module.css'

/** A part in words. */
export type CareLine = Readonly<{
  part: CarePart
  name: string
  task: string
  leave: string
  outcome: 'never' | 'due' | 'soon' | 'good'
  state: string
}>
export type CareProps = Readonly<{
  mayManage: boolean
  lines: readonly (CareLine & Readonly<{ every: string; interval: CareInterval }>)[]
  own: CareIntervals
  history: readonly Readonly<{ id: string; text: string; when: string }>[]
}>

/** Shown without asking: what is due, and what was not seen to yet. */
const isOpen = ({ outcome }: CareLine): boolean => outcome === 'due' || outcome === 'never' || outcome === 'soon'

/** What of a machine is to be seen to, why, and what was done: two buttons a part, taken back below. */
export function CareList({ bikeId, care }: Readonly<{ bikeId: string; care: CareProps }>) {
  const router = useRouter()
  const { act } = useAction()
  const { lines, history, mayManage, own } = care
  const [all, setAll] = useState(false)
  const shown = all ? lines : lines.filter(isOpen)
  const withdraw = async (careId: string) => {
    if (await act(() => command('bikes.withdrawCare', { bikeId, careId }))) router.refresh()
  }
  return (
    <section className={parts.part} aria-label="Care">
      <h2>
        <span>Care</span>
        {shown.length < lines.length && <Button onClick={() => setAll(true)}>Every part</Button>}
      </h2>
      {shown.length === 0 && <p className={parts.quiet}>Nothing is due. The maker’s manual comes first.</p>}
      <ul className={styles.lines}>
        {shown.map((line) => (
          <CareItem key={line.part} bikeId={bikeId} line={line}>
            <p className={parts.quiet}>
              {line.every}
              {mayManage && <CareIntervalForm bikeId={bikeId} part={line.part} interval={line.interval} own={own} />}
            </p>
          </CareItem>
        ))}
      </ul>
      {history.length > 0 && (
        <details className={styles.history}>
          <summary>What was done</summary>
          <ul>
            {history.map(({ id, text, when }) => (
              <li key={id}>
                <div>
                  {text}
                  <p className={parts.quiet}>{when}</p>
                </div>
                <Button onClick={() => withdraw(id)}>Take back</Button>
              </li>
            ))}
          </ul>
        </details>
      )}
    </section>
  )
}

/** One part: its state, the task and what leaving it costs, with a button for each deed. */
export function CareItem({
  bikeId,
  line,
  children,
}: Readonly<{ bikeId: string; line: CareLine; children?: React.ReactNode }>) {
  const router = useRouter()
  const { act, busy } = useAction()
  const { idFor, forget } = useIdempotencyKey()
  const [replaces, setReplaces] = useState(false)
  const [note, setNote] = useState('')
  async function record(deed: CareDeed, said: string) {
    const input = { bikeId, part: line.part, deed, note: said }
    if (!(await act(() => command('bikes.recordCare', input, idFor(input))))) return
    forget()
    setReplaces(false)
    setNote('')
    router.refresh()
  }
  return (
    <li className={styles.line} aria-label={line.name}>
      <div>
        <b>{line.name}</b>{' '}
        <span className={line.outcome === 'due' ? parts.act : line.outcome === 'good' ? parts.good : parts.quiet}>
          {line.state}
        </span>
        <p>{line.task}</p>
        <p className={parts.quiet}>{line.leave}</p>
        {children}
      </div>
      <div className={styles.deeds}>
        <Button size="large" loading={busy} onClick={() => record('done', '')}>
          Seen to
        </Button>
        <Button size="large" aria-expanded={replaces} onClick={() => setReplaces((on) => !on)}>
          Replaced
        </Button>
      </div>
      {replaces && (
        <form
          className={styles.note}
          onSubmit={(event) => {
            event.preventDefault()
            void record('replaced', note)
          }}
        >
          <Input
            size="large"
            maxLength={300}
            aria-label={`${line.name}: by what`}
            placeholder="By what, if it differs"
            value={note}
            onChange={(event) => setNote(event.target.value)}
          />
          <Button size="large" type="primary" htmlType="submit" loading={busy}>
            Keep
          </Button>
        </form>
      )}
    </li>
  )
}
