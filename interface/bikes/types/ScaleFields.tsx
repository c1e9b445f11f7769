import { Input } from 'antd'
import { isCommon, type AxisName } from '@/core/base/adjustments'
import { AxisFields } from './AxisFields'
import { axesIn, parseDraft } from './parseDraft'
import type { AxisDraft, TypeDraft } from './typeDraft'

type Props = Readonly<{
  draft: TypeDraft
  issues: ReturnType<typeof parseDraft>['issues']
  wrong: (field: string) => boolean
  set: (change: Partial<TypeDraft>) => void
  setAxis: (name: AxisName, change: Partial<AxisDraft>) => void
}>

/** The common scales as they are printed, each post with its lean. */
export function ScaleFields({ draft, issues, wrong, set, setAxis }: Props) {
  return (
    <>
      {axesIn(draft)
        .filter(isCommon)
        .map((name) => (
          <AxisFields
            key={name}
            name={name}
            axis={draft.axes[name]}
            issues={issues}
            onChange={(change) => setAxis(name, change)}
          >
            {name === 'seatHeight' && (
              <Lean
                title="Post leans back, °"
                typed={draft.seatLean}
                onTyped={(seatLean) => set({ seatLean })}
                wrong={wrong('seatLean')}
              />
            )}
            {name === 'barHeight' && (
              <Lean
                title="Post leans forward, °"
                typed={draft.barLean}
                onTyped={(barLean) => set({ barLean })}
                wrong={wrong('barLean')}
              />
            )}
          </AxisFields>
        ))}
    </>
  )
}

function Lean({
  title,
  typed,
  onTyped,
  wrong,
}: {
  title: string
  typed: string
  onTyped: (typed: string) => void
  wrong: boolean
}) {
  return (
    <label>
      {title}
      <Input
        size="large"
        inputMode="decimal"
        value={typed}
        status={wrong ? 'error' : ''}
        onChange={(e) => onTyped(e.target.value)}
      />
    </label>
  )
}
