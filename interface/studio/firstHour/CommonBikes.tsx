'use client'
import { Button, Input } from 'antd'
import { useRouter } from 'next/navigation'
import { useState, type FormEvent } from 'react'
import { parseDraft } from '../../bikes/types/parseDraft'
import { NEW_DRAFT } from '../../bikes/types/typeDraft'
import { command } from '../../commands/command'
import { useAction } from '../../commands/useAction'
import { Link } from '../../kit/Link'
import styles from './firstHour.module.css'

/** The pattern of marks that most bikes have, in words. */
const PATTERN = [NEW_DRAFT.axes.seatHeight, NEW_DRAFT.axes.seatSlide, NEW_DRAFT.axes.barHeight, NEW_DRAFT.axes.barSlide]
  .map(({ labels }) => labels.replace('-', ' to '))
  .join(', ')

/** A type with a common pattern of marks and lengths "about", and its machines, by two fields. */
export function CommonBikes() {
  const router = useRouter()
  const { act, busy } = useAction()
  const [typeId] = useState(() => crypto.randomUUID())
  /** The type once it is stored: wrong numbers after that must not store it again under another name. */
  const [lineId, setLineId] = useState<string | null>(null)
  const [name, setName] = useState('')
  const [numbers, setNumbers] = useState('')
  const isTyped = name.trim() !== '' && numbers.trim() !== ''

  async function save(event: FormEvent) {
    event.preventDefault()
    const { document } = parseDraft({ ...NEW_DRAFT, name }, 'metric')
    if (!isTyped || !document) return
    const line = lineId ?? (await act(() => command('bikes.saveType', { baseId: null, document }, typeId)))?.lineId
    if (!line) return
    setLineId(line)
    if (await act(() => command('bikes.addMachines', { lineId: line, typed: numbers }))) router.refresh()
  }
  return (
    <form className={styles.form} onSubmit={save}>
      <label>
        What you call the type
        <Input
          size="large"
          autoComplete="off"
          maxLength={80}
          disabled={lineId !== null}
          value={name}
          onChange={(e) => setName(e.target.value)}
        />
      </label>
      <label>
        Numbers of the bikes
        <Input
          size="large"
          autoComplete="off"
          placeholder="1-12"
          value={numbers}
          onChange={(e) => setNumbers(e.target.value)}
        />
      </label>
      <Button type="primary" size="large" htmlType="submit" disabled={!isTyped} loading={busy}>
        Use the common pattern
      </Button>
      <p className={styles.quiet}>
        Seat height, seat slide, bar height, bar slide: {PATTERN}. Other marks?{' '}
        <Link href="/bikes/types/new">Describe them</Link>.
      </p>
    </form>
  )
}
