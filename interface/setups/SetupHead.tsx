import { CloseOutlined, UndoOutlined } from '@ant-design/icons'
import { Button } from 'antd'
import { Finder } from '../frame/finder/Finder'
import { OutboxStatus } from '../frame/outboxStatus/OutboxStatus'
import { LightSwitch } from '../kit/theme/LightSwitch'
import type { SetupViewProps } from './setupViewProps'
import styles from './setupView.module.css'
import { STEP_NAME, STEPS, type Step } from './steps/flow'

type Props = Pick<SetupViewProps, 'member' | 'bike' | 'back'> &
  Readonly<{
    step: Step
    onStep: (step: Step) => void
    /** Undefined where there is nothing to take back. */
    onUndo: (() => void) | undefined
  }>

/** Who is set up on which bike, the steps, and what is always at hand. */
export function SetupHead({ member, bike, back, step, onStep, onUndo }: Props) {
  return (
    <header className={styles.bar}>
      <div className={styles.who}>
        <h1>{member.name}</h1>
        <p>
          bike {bike.number} · {bike.type.name}
        </p>
      </div>
      <nav className={styles.steps} aria-label="Steps">
        {STEPS.map((name) => (
          <button
            key={name}
            type="button"
            aria-current={name === step ? 'step' : undefined}
            className={styles.step}
            onClick={() => onStep(name)}
          >
            {STEP_NAME[name]}
          </button>
        ))}
      </nav>
      <div className={styles.tools}>
        <Button
          type="text"
          icon={<UndoOutlined />}
          onClick={onUndo}
          disabled={!onUndo}
          aria-label="Undo"
          title="Undo"
        />
        <Finder />
        <OutboxStatus />
        <LightSwitch />
        <Button
          type="text"
          icon={<CloseOutlined />}
          href={back}
          aria-label="Leave; everything is kept"
          title="Leave; everything is kept"
        />
      </div>
    </header>
  )
}
