import { DeleteOutlined, PlusOutlined } from '@ant-design/icons'
import { Button, Input } from 'antd'
import { LengthField } from '../../kit/LengthField'
import parts from '../parts.module.css'
import styles from './typeEditor.module.css'
import type { GripDraft } from './typeDraft'

type Props = Readonly<{
  grips: readonly GripDraft[]
  wrong: (field: string) => boolean
  onChange: (grips: readonly GripDraft[]) => void
}>

/** As many as the wire format takes. */
const MAX_GRIPS = 12

/** Further hand positions of the bars, each from the nearest one: named, so many ahead and above. */
export function GripFields({ grips, wrong, onChange }: Props) {
  const set = (at: number, change: Partial<GripDraft>) =>
    onChange(grips.map((grip, i) => (i === at ? { ...grip, ...change } : grip)))
  return (
    <fieldset className={parts.group}>
      <legend>Further hand positions</legend>
      <p className={parts.quiet}>
        The bars are measured at their nearest, narrow hold. Others are named here, so that the reach is judged where a
        rider’s hands mostly are.
      </p>
      {grips.map((grip, i) => (
        <div key={i} className={`${parts.fields} ${styles.grip}`}>
          <label>
            Name
            <Input
              size="large"
              autoComplete="off"
              maxLength={40}
              aria-label={`Hand position ${i + 1}: name`}
              value={grip.name}
              status={wrong(`grips.${i}.name`) ? 'error' : ''}
              onChange={(e) => set(i, { name: e.target.value })}
            />
          </label>
          <LengthField
            title="Ahead"
            typed={grip.ahead}
            onTyped={(ahead) => set(i, { ahead })}
            wrong={wrong(`grips.${i}.ahead`)}
          />
          <LengthField
            title="Above"
            typed={grip.above}
            onTyped={(above) => set(i, { above })}
            wrong={wrong(`grips.${i}.above`)}
          />
          <Button
            size="large"
            icon={<DeleteOutlined />}
            aria-label={`Take away hand position ${i + 1}`}
            title="Take away"
            onClick={() => onChange(grips.filter((_, other) => other !== i))}
          />
        </div>
      ))}
      {grips.length < MAX_GRIPS && (
        <Button
          size="large"
          icon={<PlusOutlined />}
          onClick={() => onChange([...grips, { name: '', ahead: '0 mm', above: '0 mm' }])}
        >
          Add a hand position
        </Button>
      )}
    </fieldset>
  )
}
