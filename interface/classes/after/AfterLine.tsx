'use client'
import { CheckOutlined, EllipsisOutlined } from '@ant-design/icons'
import { Button, Dropdown, Modal, type MenuProps } from 'antd'
import { useState } from 'react'
import { formatFollowUp } from '@/core/messages/classes/watch'
import type { AfterKind, FollowUpState } from '@/core/classes/watch/afterList'
import { clockTime } from '../../kit/clockTime'
import { command } from '../../commands/command'
import { useUndoable } from '../../commands/useUndoable'
import { RiderMoves } from '../../setups/move/RiderMoves'
import { Link } from '../../kit/Link'
import type { AfterLineProps } from './afterProps'
import styles from './after.module.css'

/** What opens where its reasons are weighed, rather than the numbers. */
const TO_REASONS: readonly AfterKind[] = ['redFlag', 'felt', 'cueFailed', 'trialDue']

const STATE_NAME: Readonly<Record<FollowUpState | 'open', string>> = {
  done: 'seen to.',
  nextClass: 'put to the next class.',
  handed: 'handed on.',
  open: 'still to see to.',
}

type Props = Readonly<{
  row: AfterLineProps
  colleagues: readonly Readonly<{ id: string; name: string }>[]
  timeZone: string
  /** Sets riders up, and so moves marks. */
  maySetUp: boolean
}>

/** One line to see to: it opens the rider, is ticked by a tap, put to the next class, or handed to a colleague. */
export function AfterLine({ row, colleagues, timeZone, maySetUp }: Props) {
  const { change, busy } = useUndoable()
  const { kind, memberId, classId, bikeId, name, number, texts, setUp, isNew, from, followUp, planIds } = row
  const words = texts.join('; ')
  const write = (state: FollowUpState | null, handedTo: string | null) =>
    command('classes.followUpLine', { classId, memberId, kind, state, handedTo, said: words || wordsOf(isNew) })
  /** What it was before: set by an earlier class, or on this page. */
  const before = from ? 'nextClass' : (followUp?.state ?? null)
  const follow = (state: FollowUpState | null, handedTo: string | null = null) =>
    change({
      action: () => write(state, handedTo),
      done: `${name}: ${STATE_NAME[state ?? 'open']}`,
      undo: () => write(before, followUp?.handedTo ?? null),
    })
  /** All plans of the line; the answer that refused one, if any. */
  const ofPlans = async (planCommand: 'members.tickPlan' | 'members.reopenPlan') => {
    const answers = await Promise.all(planIds.map((planId) => command(planCommand, { memberId, planId })))
    return answers.find(({ outcome }) => outcome !== 'kept') ?? answers[0]
  }
  /** A plan is ticked itself, and with it the line goes. */
  const tickPlans = () =>
    change({
      action: () => ofPlans('members.tickPlan'),
      done: `${name}: ${STATE_NAME.done}`,
      undo: () => ofPlans('members.reopenPlan'),
    })
  const [moving, setMoving] = useState(false)
  const isDone = followUp?.state === 'done'
  const ways: MenuProps['items'] = [
    ...(bikeId && maySetUp ? [{ key: 'move', label: 'Move a mark', onClick: () => setMoving(true) }] : []),
    ...(from || kind === 'planDue'
      ? []
      : [{ key: 'next', label: 'Put to the rider’s next class', onClick: () => void follow('nextClass') }]),
    ...colleagues.map(({ id, name: colleague }) => ({
      key: id,
      label: `Hand to ${colleague}`,
      onClick: () => void follow('handed', id),
    })),
    ...(followUp && !isDone
      ? [{ key: 'open', label: 'Take it back: still to see to', onClick: () => void follow(null) }]
      : []),
  ]
  return (
    <li className={followUp ? styles.seenTo : undefined}>
      <button
        type="button"
        className={`${styles.tick} no-print`}
        role="checkbox"
        aria-checked={isDone}
        aria-label={`${name}: seen to`}
        disabled={busy}
        onClick={() => (planIds.length > 0 ? tickPlans() : follow(isDone ? null : 'done'))}
      >
        {isDone && <CheckOutlined />}
      </button>
      <Link href={`/riders/${memberId}${TO_REASONS.includes(kind) ? '/reasons' : ''}`}>
        <b>{number}</b>
        <span>
          {name}
          <small>
            {words}
            {setUp && `. Look first at: ${setUp}`}
            {kind === 'warmUp' && !from && wordsOf(isNew)}
            {from && `. ${from.title}, ${clockTime(from.startsAt.getTime(), timeZone)}`}
          </small>
          {followUp && <small className={styles.became}>{formatFollowUp(followUp)}</small>}
        </span>
      </Link>
      {bikeId && moving && (
        <Modal open title={`${name}, bike ${number}`} footer={null} onCancel={() => setMoving(false)}>
          <RiderMoves memberId={memberId} bikeId={bikeId} classId={classId} />
        </Modal>
      )}
      {ways.length > 0 && (
        <Dropdown trigger={['click']} menu={{ items: ways }} placement="bottomRight">
          <Button
            className="no-print"
            type="text"
            size="large"
            loading={busy}
            icon={<EllipsisOutlined />}
            aria-label={`${name}: put to the next class or hand on`}
          />
        </Dropdown>
      )}
    </li>
  )
}

const wordsOf = (isNew: boolean): string => (isNew ? 'new here, not set up yet' : 'left to the warm-up')
