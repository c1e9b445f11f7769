'use client'
import { Button, Input, Modal } from 'antd'
import { useRouter } from 'next/navigation'
import { useState } from 'react'
import { PLAN_CHOICE_NAME, PLAN_CHOICES, type PlanChoice } from '@/core/messages/riders/plans'
import type { Plan } from '@/core/riders/plans/plan'
import { useAction } from '../../commands/useAction'
import { command } from '../../commands/command'
import { useIdempotencyKey } from '../../commands/useIdempotencyKey'
import { Choices, Field } from './fields'
import styles from './limits.module.css'

/** A promise with its day, or cleats and shoes with the day they were new or last looked at. */
export function AddPlan({ memberId, today, close }: Readonly<{ memberId: string; today: string; close: () => void }>) {
  const router = useRouter()
  const { act, busy } = useAction()
  const { idFor } = useIdempotencyKey()
  const [kind, setKind] = useState<PlanChoice>('promise')
  const [words, setWords] = useState('')
  const [day, setDay] = useState(today)
  const isPromise = kind === 'promise'
  const plan: Plan = isPromise ? { kind, due: day, words: words.trim() } : { kind, since: day }
  async function save() {
    if (!(await act(() => command('members.recordPlan', { memberId, plan }, idFor([memberId, plan]))))) return
    close()
    router.refresh()
  }
  return (
    <Modal open onCancel={close} footer={null} title="Add a plan" width={560}>
      <form
        className={styles.form}
        onSubmit={(event) => {
          event.preventDefault()
          void save()
        }}
      >
        <Choices
          name="What"
          of={PLAN_CHOICES}
          named={PLAN_CHOICE_NAME}
          chosen={kind}
          choose={(one) => {
            setKind(one)
            setDay(today)
          }}
        />
        {isPromise && (
          <Field title="What was promised">
            <Input
              size="large"
              aria-label="What was promised"
              placeholder="Look at the left knee"
              maxLength={200}
              value={words}
              onChange={(event) => setWords(event.target.value)}
            />
          </Field>
        )}
        <Field title={isPromise ? 'At the first class from this day on' : 'New, or last looked at, on'}>
          <Input
            size="large"
            type="date"
            aria-label="Date"
            {...(isPromise ? { min: today } : { max: today })}
            value={day}
            onChange={(event) => setDay(event.target.value)}
          />
        </Field>
        <Button
          type="primary"
          size="large"
          htmlType="submit"
          loading={busy}
          disabled={day === '' || (isPromise && words.trim() === '')}
          block
        >
          Save
        </Button>
      </form>
    </Modal>
  )
}
