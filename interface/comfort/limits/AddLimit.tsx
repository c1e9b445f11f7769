'use client'
import { Button, Checkbox, Input, Modal } from 'antd'
import '@/interface/kit/antd/checkbox.generated.css'
import { useRouter } from 'next/navigation'
import { useState } from 'react'
import {
  CLEARED_KINDS,
  LIMIT_KINDS,
  LIMIT_REGIONS,
  NEEDED,
  RIDES,
  type Limit,
  type LimitKind,
} from '@/core/riders/limits/limits'
import { LIMIT_NAME, LIMIT_REGION_NAME, RIDES_NAME } from '@/core/messages/riders/limits'
import { useAction } from '../../commands/useAction'
import { command } from '../../commands/command'
import { useIdempotencyKey } from '../../commands/useIdempotencyKey'
import { NumberField } from '../../kit/NumberField'
import { Choices, Field } from './fields'
import styles from './limits.module.css'

/** What the millimetres of a kind are, where they may be minus. */
const MM_TITLE: Readonly<Partial<Record<LimitKind, string>>> = {
  sitsAt: 'mm ahead of the saddle’s middle, minus behind it',
  ownSaddle: 'Sits higher on it by, mm (minus: lower)',
}

const SIDES = ['left', 'right', 'both'] as const
const SIDE_NAME = { left: 'Left', right: 'Right', both: 'Both' } as const

/** A limit with its day and details; stored only where the rider agrees. */
export default function AddLimit({
  open,
  memberId,
  today,
  close,
}: Readonly<{ open: boolean; memberId: string; today: string; close: () => void }>) {
  const router = useRouter()
  const { act, busy } = useAction()
  const { idFor } = useIdempotencyKey()
  const [limit, setLimit] = useState<Limit>({ kind: 'injury', since: today })
  const [consent, setConsent] = useState(false)
  const { kind } = limit
  const needs = (detail: (typeof NEEDED)[LimitKind][number]) => NEEDED[kind].includes(detail)
  const set = (change: Partial<Limit>) => setLimit((before) => ({ ...before, ...change }))
  const isWhole = NEEDED[kind].every((detail) => limit[detail] !== undefined) && limit.since !== ''
  async function save() {
    const sent = { memberId, limit, consent }
    if (!(await act(() => command('members.recordLimit', sent, idFor([memberId, limit]))))) return
    close()
    router.refresh()
  }
  return (
    <Modal open={open} onCancel={close} footer={null} title="Add a limit" width={560}>
      <form
        className={styles.form}
        onSubmit={(event) => {
          event.preventDefault()
          void save()
        }}
      >
        <Choices
          name="What"
          of={LIMIT_KINDS}
          named={LIMIT_NAME}
          chosen={kind}
          choose={(one) => setLimit({ kind: one, since: limit.since })}
        />
        {needs('region') && (
          <Choices
            name="Where"
            of={LIMIT_REGIONS}
            named={LIMIT_REGION_NAME}
            chosen={limit.region}
            choose={(region) => set({ region })}
          />
        )}
        {needs('side') && (
          <Choices
            name={kind === 'legDifference' ? 'The shorter leg' : 'Side'}
            of={kind === 'legDifference' || kind === 'firstFoot' ? SIDES.slice(0, 2) : SIDES}
            named={SIDE_NAME}
            chosen={limit.side}
            choose={(side) => set({ side })}
          />
        )}
        {needs('rides') && (
          <Choices name="How" of={RIDES} named={RIDES_NAME} chosen={limit.rides} choose={(rides) => set({ rides })} />
        )}
        {needs('yes') && (
          <Choices
            name="Touching"
            of={['yes', 'no'] as const}
            named={{ yes: 'May be touched', no: 'Not to be touched' }}
            chosen={limit.yes === undefined ? undefined : limit.yes ? 'yes' : 'no'}
            choose={(answer) => set({ yes: answer === 'yes' })}
          />
        )}
        {needs('weeks') && (
          <Field title="Weeks on that day">
            <NumberField
              aria-label="Weeks on that day"
              whole
              min={0}
              max={42}
              value={limit.weeks ?? null}
              onChange={(weeks) => set({ weeks })}
            />
          </Field>
        )}
        {needs('mm') && (
          <Field title={MM_TITLE[kind] ?? 'Shorter by, mm'}>
            <NumberField
              aria-label="Millimetres"
              min={MM_TITLE[kind] ? -60 : 1}
              max={60}
              value={limit.mm ?? null}
              onChange={(mm) => set({ mm })}
            />
          </Field>
        )}
        <Field title={kind === 'operation' ? 'On' : kind === 'pregnancy' ? 'On the day' : 'Since'}>
          <Input
            size="large"
            type="date"
            aria-label="Date"
            max={today}
            value={limit.since}
            onChange={(event) => set({ since: event.target.value })}
          />
        </Field>
        {CLEARED_KINDS.includes(kind) && (
          <Field title="Cleared by (a clinician; empty while their word is still to come)">
            <Input
              size="large"
              aria-label="Cleared by"
              maxLength={80}
              value={limit.clearedBy ?? ''}
              onChange={(event) => set({ clearedBy: event.target.value || undefined })}
            />
          </Field>
        )}
        <Checkbox checked={consent} onChange={(event) => setConsent(event.target.checked)}>
          The rider agrees that this is stored
        </Checkbox>
        <Button type="primary" size="large" htmlType="submit" loading={busy} disabled={!consent || !isWhole} block>
          Save
        </Button>
      </form>
    </Modal>
  )
}
