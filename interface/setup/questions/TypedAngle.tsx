import { Button, Popover } from 'antd'
import { useState } from 'react'
import { interpretKneeAngle } from '@/core/evidence/kinds/kneeAngle'
import { NumberField } from '../../shared/NumberField'
import styles from '../questions.module.css'

/** A knee angle typed with keys; what looks like the angle between the bones is asked about before it is kept. */
export function TypedAngle({ onRead }: { onRead: (deg: number) => void }) {
  const [typed, setTyped] = useState<number | null>(null)
  const [asked, setAsked] = useState(false)
  const meant = typed === null ? null : interpretKneeAngle(typed)
  function keep(deg: number) {
    onRead(deg)
    setTyped(null)
    setAsked(false)
  }
  function enter() {
    if (typed === null || meant === null) return
    if (meant.outcome === 'bend') keep(meant.deg)
    else setAsked(true)
  }
  return (
    <Popover
      open={asked && meant !== null}
      placement="top"
      content={
        <div className={styles.asks} role="alert">
          <p>
            {meant?.outcome === 'betweenBones'
              ? `${typed} reads like the angle between the bones, 180 being straight: a bend of ${meant.deg}°.`
              : 'A knee bends from −20° (over-straight) to 90°. Type it again.'}
          </p>
          {meant?.outcome === 'betweenBones' && (
            <Button type="primary" onClick={() => keep(meant.deg)}>
              Keep {meant.deg}° of bend
            </Button>
          )}
          <Button onClick={() => setAsked(false)}>Type again</Button>
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
            setAsked(false)
          }}
          onEnter={enter}
        />
      </span>
    </Popover>
  )
}
