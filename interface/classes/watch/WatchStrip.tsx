import type { Block, Posture } from '@/core/classes/plan/blocks'
import { REMINDER_TEXT, reminderAt } from '@/core/classes/plan/reminder'
import { OutboxTrouble } from '../../frame/outboxStatus/OutboxTrouble'
import type { ClassInfo } from '../classTypes'
import { CLASS_QUEUE } from './useWatch'
import styles from './watch.module.css'

type Props = Readonly<{
  info: ClassInfo
  /** The block that runs; null without one. */
  block: Block | null
  minute: number
  posture: Posture | null
  coverage: Readonly<{ looked: number; of: number }>
  inRoom: boolean
  onPosture: (posture: Posture) => void
  onRoomCue: () => void
}>

/** The block that runs, seated or standing, how many riders were looked at, and the cue to the room. */
export function WatchStrip({ info, block, minute, posture, coverage, inRoom, onPosture, onRoomCue }: Props) {
  const { looked, of } = coverage
  const reminder = info.open ? null : reminderAt(info.blocks, minute)
  return (
    <div className={styles.strip}>
      <p className={styles.block}>
        {block ? (
          <>
            <b>{block.name || 'Block'}</b> {block.rpm} turns, {2 * block.rpm} beats
          </>
        ) : (
          <span>{info.open ? 'Open floor' : info.blocks.length > 0 ? 'No block runs' : 'No plan of blocks'}</span>
        )}
        {reminder && <em>{REMINDER_TEXT[reminder]}</em>}
      </p>
      <div className={styles.posture} role="group" aria-label="Seated or standing">
        {(['seated', 'standing'] as const).map((one) => (
          <button key={one} type="button" aria-pressed={posture === one} onClick={() => onPosture(one)}>
            {one}
          </button>
        ))}
      </div>
      <p className={styles.coverage}>
        <b>
          {looked} of {of}
        </b>{' '}
        looked at
      </p>
      <button type="button" className={styles.room} aria-pressed={inRoom} onClick={onRoomCue}>
        Room cue
      </button>
      <OutboxTrouble queue={CLASS_QUEUE} />
    </div>
  )
}
