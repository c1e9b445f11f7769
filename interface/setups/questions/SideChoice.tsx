import { Segmented } from 'antd'

export type SideLookedAt = 'either' | 'left' | 'right'

/** Which leg was looked at; both are worth a look where they may differ. */
export function SideChoice({
  side,
  onSide,
  apart,
}: Readonly<{
  side: SideLookedAt
  onSide: (side: SideLookedAt) => void
  /** One leg is shorter: each is looked at for itself. */
  apart: boolean
}>) {
  return (
    <Segmented
      aria-label="Leg"
      value={side}
      onChange={onSide}
      options={[
        ...(apart ? [] : [{ value: 'either' as const, label: 'Leg' }]),
        { value: 'left', label: 'Left' },
        { value: 'right', label: 'Right' },
      ]}
    />
  )
}

/** A row's side, where one was named. */
export const sideOf = (side: SideLookedAt): { side?: 'left' | 'right' } => (side === 'either' ? {} : { side })
