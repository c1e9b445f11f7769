'use client'
import { MinusOutlined, PlusOutlined } from '@ant-design/icons'
import { useRef, useState, type KeyboardEvent } from 'react'
import styles from './sliderInput.module.css'

type Props = Readonly<{
  title: string
  unit: string
  from: number
  to: number
  step: number
  window: readonly [number, number]
  /** Where the arrow keys begin. */
  start: number
  given?: number
  onRead: (value: number) => void
  name: (value: number) => string
}>

/** Longest pause between two typed digits of one number, ms. */
const DIGITS_PAUSE_MS = 1500

/**
 * A reading taken on a drawn scale: tap or drag to the value, step by one, or type it, then confirm it (Enter). Until
 * it is touched it has no value: what the model expects is no reading.
 */
export function SliderInput({ title, unit, from, to, step, window: range, start, given, onRead, name }: Props) {
  const [value, setValue] = useState<number | null>(given ?? null)
  const digits = useRef({ text: '', atMs: 0 })
  const share = (v: number) => ((v - from) / (to - from)) * 100
  const set = (v: number) => setValue(Math.min(to, Math.max(from, v)))
  const save = () => value !== null && onRead(value)
  function press(event: KeyboardEvent<HTMLInputElement>) {
    if (event.key === 'Enter') return save()
    if (!/^[\d-]$/.test(event.key)) return
    event.preventDefault()
    const now = event.timeStamp
    const text = now - digits.current.atMs > DIGITS_PAUSE_MS ? event.key : digits.current.text + event.key
    digits.current = { text, atMs: now }
    if (/\d/.test(text)) set(Number(text))
  }
  const isSaved = value !== null && given === value
  return (
    <div className={styles.dial} data-untouched={value === null || undefined}>
      <p className={styles.title}>{title}</p>
      <div className={styles.line}>
        <button
          type="button"
          aria-label={`${title}: less`}
          disabled={value === null}
          onClick={() => set((value ?? start) - step)}
        >
          <MinusOutlined />
        </button>
        <div className={styles.track}>
          <i
            className={styles.window}
            style={{ left: `${share(range[0])}%`, width: `${share(range[1]) - share(range[0])}%` }}
          />
          {Array.from({ length: Math.round((to - from) / (step * 5)) + 1 }, (_, i) => from + i * step * 5).map(
            (tick) => (
              <i key={tick} className={styles.tick} style={{ left: `${share(tick)}%` }}>
                {(tick - from) % (step * 10) === 0 && <em>{String(tick).replace('-', '−')}</em>}
              </i>
            ),
          )}
          <input
            type="range"
            min={from}
            max={to}
            step={step}
            value={value ?? start}
            onChange={(e) => set(Number(e.target.value))}
            // A tap at the position of the untouched slider fires no change event.
            onPointerUp={(e) => set(Number(e.currentTarget.value))}
            onKeyDown={press}
            aria-label={title}
            aria-valuetext={value === null ? 'not read yet' : name(value)}
          />
        </div>
        <button
          type="button"
          aria-label={`${title}: more`}
          disabled={value === null}
          onClick={() => set((value ?? start) + step)}
        >
          <PlusOutlined />
        </button>
        <button type="button" className={styles.keep} aria-pressed={isSaved} disabled={value === null} onClick={save}>
          <b>{value === null ? '–' : `${String(value).replace('-', '−')}${unit}`}</b>
          <span>{value === null ? 'tap the scale' : isSaved ? 'kept' : 'keep this'}</span>
        </button>
      </div>
    </div>
  )
}
