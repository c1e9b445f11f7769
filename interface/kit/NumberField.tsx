'use client'
import { Input } from 'antd'
import { useId, useState, type KeyboardEvent } from 'react'
import { parseQuantity, type QuantityUnit } from '@/core/base/quantity'
import styles from './numberField.module.css'

type Props = Readonly<{
  /** Null: nothing was entered. */
  value: number | null
  min: number
  max: number
  /** Step of the arrow keys, in units. */
  step?: number
  unit?: QuantityUnit
  /** Only whole numbers are valid. */
  whole?: boolean
  onChange: (value: number) => void
  /** Called with a valid value by Enter. */
  onEnter?: (value: number) => void
  placeholder?: string
  disabled?: boolean
  'aria-label'?: string
  /** Width of the field, CSS pixels. */
  width?: number
}>

/**
 * The one field for a number: decimal point or comma, a typed unit ("2 cm"), arrow keys by `step`. Marks text that is
 * no valid number between `min` and `max`, shows the limits, and does not call `onChange`; the text stays as typed.
 */
export function NumberField({
  value,
  min,
  max,
  step = 1,
  unit = '',
  whole = false,
  onChange,
  onEnter,
  width = 96,
  ...rest
}: Props) {
  const hint = useId()
  /** What is being typed; null: the value is shown. */
  const [typed, setTyped] = useState<string | null>(null)
  const text = typed ?? (value === null ? '' : formatQuantity(value))
  const read = typed === null ? value : parseQuantity(typed, unit)
  const isEmpty = text.trim() === ''
  const isValid = (number: number | null): number is number =>
    number !== null && number >= min && number <= max && (!whole || Number.isInteger(number))
  const isWrong = typed !== null && !isEmpty && !isValid(read)

  function type(next: string) {
    setTyped(next)
    const number = parseQuantity(next, unit)
    if (isValid(number) && number !== value) onChange(number)
  }
  function leave() {
    if (!isWrong) setTyped(null)
  }
  function press(event: KeyboardEvent<HTMLInputElement>) {
    if (event.key === 'Enter') {
      if (!isValid(read)) return
      setTyped(null)
      onEnter?.(read)
    }
    const by = { ArrowUp: step, ArrowDown: -step }[event.key]
    if (by === undefined) return
    event.preventDefault()
    const next = Math.min(max, Math.max(min, Number(((read ?? min) + by).toFixed(6))))
    setTyped(null)
    if (next !== value) onChange(next)
  }
  return (
    <span className={styles.field} style={{ width }}>
      <Input
        {...rest}
        size="large"
        inputMode={min < 0 ? 'text' : 'decimal'}
        autoComplete="off"
        value={text}
        suffix={unit === '' ? undefined : <span className={styles.unit}>{unit}</span>}
        status={isWrong ? 'error' : ''}
        aria-invalid={isWrong}
        aria-describedby={isWrong ? hint : undefined}
        onChange={(event) => type(event.target.value)}
        onBlur={leave}
        onKeyDown={press}
      />
      {isWrong && (
        <span id={hint} role="alert" className={styles.limits}>
          {whole && 'whole, '}
          {formatQuantity(min)} to {formatQuantity(max)} {unit}
        </span>
      )}
    </span>
  )
}

/** A number as a field shows it: at most four decimals, the true minus. */
const formatQuantity = (value: number): string => String(Number(value.toFixed(4))).replace('-', '−')
