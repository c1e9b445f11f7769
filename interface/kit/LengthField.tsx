'use client'
import { Input } from 'antd'
import type { UnitSystem, PlainUnit } from '@/core/base/length'

/** What a number without a unit means in a field for bodies. */
export const bodyUnit = (shown: UnitSystem): PlainUnit => (shown === 'imperial' ? 'in' : 'cm')

type Props = Readonly<{
  title: string
  typed: string
  onTyped: (typed: string) => void
  wrong?: boolean
  onEnter?: () => void
  describedBy?: string
  placeholder?: string
}>

/**
 * A length as it is spoken: "163", "1.63 m", "5′4″", "64 in". What is typed stays as typed, also when it is refused.
 */
export function LengthField({ title, typed, onTyped, wrong = false, onEnter, describedBy, placeholder }: Props) {
  return (
    <label>
      {title}
      <Input
        size="large"
        autoComplete="off"
        value={typed}
        placeholder={placeholder}
        status={wrong ? 'error' : ''}
        aria-invalid={wrong}
        aria-describedby={describedBy}
        onChange={(e) => onTyped(e.target.value)}
        onPressEnter={onEnter}
      />
    </label>
  )
}
