import { DeleteOutlined } from '@ant-design/icons'
import { Button, Select } from 'antd'
import '@/interface/kit/antd/select.generated.css'
import { FURTHER_AXES, type AxisName } from '@/core/base/adjustments'
import { ADJUSTMENT_WORDS } from '@/core/messages/words/adjustments'
import { AXIS_TITLE } from '@/core/messages/words/phrases'
import parts from '../parts.module.css'
import { AxisFields } from './AxisFields'
import type { DraftIssue } from './parseDraft'
import type { AxisDraft, TypeDraft } from './typeDraft'
import styles from './typeEditor.module.css'

type Props = Readonly<{
  draft: TypeDraft
  issues: readonly DraftIssue[]
  set: (change: Partial<TypeDraft>) => void
  setAxis: (name: AxisName, change: Partial<AxisDraft>) => void
}>

/** What moves on this type beside seat and bars: each added from a list, with its scale, and taken away again. */
export function FurtherFields({ draft, issues, set, setAxis }: Props) {
  const { further } = draft
  const left = FURTHER_AXES.filter((name) => !further.includes(name))
  return (
    <fieldset className={parts.group}>
      <legend>What else moves</legend>
      <p className={parts.quiet}>
        Some machines lift the whole frame, offer lengths of cranks, or tilt the saddle by hand. A set-up then sets
        these too, and other bikes take over what they do.
      </p>
      {further.map((name) => (
        <div key={name} className={styles.further}>
          <AxisFields
            name={name}
            axis={draft.axes[name]}
            issues={issues}
            onChange={(change) => setAxis(name, change)}
          />
          <Button
            size="large"
            icon={<DeleteOutlined />}
            aria-label={`Take away the ${AXIS_TITLE[name].toLowerCase()}`}
            title="Take away"
            onClick={() => set({ further: further.filter((other) => other !== name) })}
          />
        </div>
      ))}
      {left.length > 0 && (
        <Select
          size="large"
          className={styles.adding}
          aria-label="Add an adjustment"
          placeholder="Add an adjustment"
          value={null}
          onChange={(name: AxisName | null) => name && set({ further: [...further, name] })}
          options={left.map((value) => ({ value, label: AXIS_TITLE[value], title: ADJUSTMENT_WORDS[value].what }))}
        />
      )}
    </fieldset>
  )
}
