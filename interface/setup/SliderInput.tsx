'use client'
import { MinusOutlined, PlusOutlined } from '@ant-design/icons'
import { useState } from 'react'
import styles from './sliderInput.module.css'

type Props = Readonly<{
  title: string
  unit: string
  from: number
  to: number
  step: number
  window: readonly [number, number]
  start: number
  given?: number
  onRead: (value: number) => void
  name: (value: number) => string
}>

/**
 * A reading taken by tapping a drawn scale: tap or drag to the value, step by one, then keep it. Arrow keys work too.
 */
export function SliderInput({ title, unit, from, to, step, window: wanted, start, given, onRead, name }: Props) {
  const [value, setValue] = useState(given ?? start)
  const share = (v: number) => ((v - from) / (to - from)) * 100
  const set = (v: number) => setValue(Math.min(to, Math.max(from, v)))
  return (
    <div className={styles.dial}>
      <p className={styles.title}>{title}</p>
      <div className={styles.line}>
        <button type="button" aria-label={`${title}: less`} onClick={() => set(value - step)}>
          <MinusOutlined />
        </button>
        <div className={styles.track}>
          <i
            className={styles.window}
            style={{ left: `${share(wanted[0])}%`, width: `${share(wanted[1]) - share(wanted[0])}%` }}
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
            value={value}
            onChange={(e) => set(Number(e.target.value))}
            aria-label={title}
            aria-valuetext={name(value)}
          />
        </div>
        <button type="button" aria-label={`${title}: more`} onClick={() => set(value + step)}>
          <PlusOutlined />
        </button>
        <button type="button" className={styles.keep} aria-pressed={given === value} onClick={() => onRead(value)}>
          <b>
            {String(value).replace('-', '−')}
            {unit}
          </b>
          <span>{given === value ? 'kept' : 'keep this'}</span>
        </button>
      </div>
    </div>
  )
}
