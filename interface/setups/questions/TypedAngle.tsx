import { Button, Popover } from 'antd'
import '@/interface/kit/antd/popover.generated.css'
import { useState } from 'react'
import { interpretKneeAngle } from '@/core/riders/evidence/kinds/onBike/kneeAngle'
import { NumberField } from '../../kit/NumberField'
import styles from '../steps/questions.module.css'

/** A knee angle typed with keys; what looks like the angle between the bones needs a confirmation. */
export function TypedAngle({ onRead }: { onRead: (deg: number) => void }) {
  const [typed, setTyped] = useState<number | null>(null)
  const [isConfirming, setConfirming] = useState(false)
  const meant = typed === null ? null : interpretKneeAngle(typed)
  function save(deg: number) {
    onRead(deg)
    setTyped(null)
    setConfirming(false)
  }
  function enter() {
    if (typed === null || meant === null) return
    if (meant.outcome === 'bend') save(meant.deg)
    else setConfirming(true)
  }
  return (
    <Popover
      open={isConfirming && meant !== null}
      placement="top"
      content={
        <div className={styles.asks} role="alert">
          <p>
            {meant?.outcome === 'includedAngle'
              ? `${typed} reads like the angle between the bones, 180 being straight: a bend of ${meant.deg}°.`
              : 'A knee bends from −20° (over-straight) to 90°. Type it again.'}
          </p>
          {meant?.outcome === 'includedAngle' && (
            <Button type="primary" onClick={() => save(meant.deg)}>
              Keep {meant.deg}° of bend
            </Button>
          )}
          <Button onClick={() => setConfirming(false)}>Type again</Button>
        </div>
      }
    >
      <span className={styles.typed} onBlur={enter}>
        <NumberField
          min={-180}
          max={360}
          unit="°"
          value={typed}
          placeholder="type it"
          aria-label="Type the knee angle"
          onChange={(value) => {
            setTyped(value)
            setConfirming(false)
          }}
          onEnter={enter}
        />
      </span>
    </Popover>
  )
}
