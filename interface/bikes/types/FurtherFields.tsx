import { ArrowUpOutlined, DeleteOutlined } from '@ant-design/icons'
import { Button, Select } from 'antd'
import '@/interface/kit/antd/select.generated.css'
import { FURTHER_AXES, type AxisName } from '@/core/base/adjustments'
import { ADJUSTMENT_WORDS } from '@/core/messages/words/adjustments'
import { AXIS_TITLE } from '@/core/messages/words/phrases'
import parts from '../parts.module.css'
import { AxisFields } from './AxisFields'
import { axesIn, type DraftIssue } from './parseDraft'
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
      {further.length > 0 && <HandOrder draft={draft} set={set} />}
    </fieldset>
  )
}

/** The order in which the hand sets what moves: each one place earlier by its arrow. */
function HandOrder({ draft, set }: Pick<Props, 'draft' | 'set'>) {
  const axes = axesIn(draft)
  const order = [
    ...draft.order.filter((name) => axes.includes(name)),
    ...axes.filter((name) => !draft.order.includes(name)),
  ]
  const earlier = (i: number) => set({ order: order.with(i - 1, order[i]).with(i, order[i - 1]) })
  return (
    <div role="group" aria-label="Order of the hand">
      <p className={parts.quiet}>The order in which the hand sets them, and the numbers are read out:</p>
      <ol className={styles.order}>
        {order.map((name, i) => (
          <li key={name}>
            <div>
              {draft.axes[name].printedName.trim() || AXIS_TITLE[name]}
              {i > 0 && (
                <Button
                  size="large"
                  icon={<ArrowUpOutlined />}
                  aria-label={`${AXIS_TITLE[name]} one place earlier`}
                  title="Earlier"
                  onClick={() => earlier(i)}
                />
              )}
            </div>
          </li>
        ))}
      </ol>
    </div>
  )
}
