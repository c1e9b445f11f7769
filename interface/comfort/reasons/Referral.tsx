'use client'
import { App, Button, Input } from 'antd'
import { useState } from 'react'
import { useAction } from '../../commands/useAction'
import { command } from '../../commands/command'
import styles from './reasons.module.css'
import type { ComplaintSummary } from './reasonsPage'

type Props = Readonly<{
  member: Readonly<{ id: string; name: string }>
  why: string
  say: string
  complaints: readonly ComplaintSummary[]
  mayNote: boolean
  changed: () => void
}>

/** A complaint that is no matter for a bike: the words, the referral, and who was informed. */
export function Referral({ member, why, say, complaints, mayNote, changed }: Props) {
  const { message } = App.useApp()
  const { act, busy } = useAction()
  const [words, setWords] = useState('')
  const open = complaints.filter(({ handed }) => handed === null)
  const text = [
    member.name,
    ...complaints.map(({ text: felt, when, flags, from }) =>
      [felt, when, flags.join(', '), from].filter(Boolean).join('. '),
    ),
    say,
  ].join('\n')
  async function copy() {
    try {
      await navigator.clipboard.writeText(text)
      message.success('Copied: what was recorded, and what to do.')
    } catch {
      message.error('This browser does not let pages copy; select the text instead.')
    }
  }
  async function recordSide(id: string, side: 'left' | 'both' | 'right') {
    if (await act(() => command('comfort.recordSide', { memberId: member.id, complaintId: id, side }))) changed()
  }
  async function save() {
    for (const { id } of open) {
      const referral = { memberId: member.id, complaintId: id, handedTo: words }
      if (!(await act(() => command('comfort.recordReferral', referral)))) return
    }
    setWords('')
    changed()
  }
  return (
    <section className={styles.refer} aria-label="Refer">
      <h2>No change of the bike: {why.charAt(0).toLowerCase() + why.slice(1)}</h2>
      <p className={styles.say}>{say}</p>
      <ul>
        {complaints.map(({ id, text: felt, flags, from, handed }) => (
          <li key={id}>
            {felt}: {flags.join(', ')}. {from}.{handed && <b> Referred {handed}.</b>}
          </li>
        ))}
      </ul>
      {mayNote &&
        complaints
          .filter(({ needsSide }) => needsSide)
          .map(({ id, text: felt }) => (
            <div key={id} className={`${styles.tell} no-print`} role="group" aria-label={`Which side: ${felt}`}>
              <p>Ask first, which side is it on? {felt}</p>
              {(['left', 'both', 'right'] as const).map((side) => (
                <Button key={side} size="large" disabled={busy} onClick={() => recordSide(id, side)}>
                  {side === 'left' ? 'Left' : side === 'right' ? 'Right' : 'Both'}
                </Button>
              ))}
            </div>
          ))}
      <p className={styles.quiet}>
        This is recorded, not diagnosed. Local rules and licensed practice stand above it. What the rider agrees to may
        be handed over.
      </p>
      <div className={`${styles.tell} no-print`}>
        <Button size="large" onClick={copy}>
          Copy to hand over
        </Button>
        <Button size="large" onClick={() => window.print()}>
          Print
        </Button>
        {mayNote && open.length > 0 && (
          <>
            <Input
              size="large"
              maxLength={120}
              aria-label="Who was told"
              placeholder="Who was told? The rider, a parent, the desk …"
              value={words}
              onChange={(event) => setWords(event.target.value)}
            />
            <Button size="large" type="primary" loading={busy} disabled={words.trim() === ''} onClick={save}>
              Referred
            </Button>
          </>
        )}
      </div>
    </section>
  )
}
