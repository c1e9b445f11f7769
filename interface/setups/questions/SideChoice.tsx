import { Segmented } from 'antd'

export type SideLookedAt = 'either' | 'left' | 'right'

/** Which leg was looked at; both are worth a look where they may differ. */
export function SideChoice({ side, onSide }: { side: SideLookedAt; onSide: (side: SideLookedAt) => void }) {
  return (
    <Segmented
      aria-label="Leg"
      value={side}
      onChange={onSide}
      options={[
        { value: 'either', label: 'Leg' },
        { value: 'left', label: 'Left' },
        { value: 'right', label: 'Right' },
      ]}
    />
  )
}

/** A row's side, where one was named. */
export const sideOf = (side: SideLookedAt): { side?: 'left' | 'right' } => (side === 'either' ? {} : { side })
