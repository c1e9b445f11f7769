'use client'
import { App, Button, Select } from 'antd'
import '@/interface/kit/antd/select.generated.css'
import { useRouter } from 'next/navigation'
import { useState } from 'react'
import { formatMonths, formatRetentionPreview, isShorter, KEPT_TEXT } from '@/core/messages/studio/retention'
import { KEPT, KEPT_MONTHS, type Kept, type Retention } from '@/core/riders/retention/retention'
import { command, query } from '../../commands/command'
import { useAction } from '../../commands/useAction'
import styles from './privacy.module.css'

/** For good is no number: a select has keys of text. */
const FOR_GOOD = 'good'
const keyOf = (months: number | null) => (months === null ? FOR_GOOD : String(months))

/** Retention times of notes, complaints and earlier numbers; counts the affected rows before deletion. */
export function RetentionForm({ retention }: Readonly<{ retention: Retention }>) {
  const router = useRouter()
  const { modal } = App.useApp()
  const { act, busy } = useAction()
  const [chosen, setChosen] = useState(retention)
  const isChanged = KEPT.some((kind) => chosen[kind] !== retention[kind])
  const choose = (kind: Kept, key: string) => setChosen({ ...chosen, [kind]: key === FOR_GOOD ? null : Number(key) })
  const keep = async () => {
    if (await act(() => command('privacy.saveRetention', { retention: chosen }))) router.refresh()
  }
  async function save() {
    const answer = await act(() => query('privacy.previewRetention', { retention: chosen }))
    if (!answer) return
    if (!isShorter(retention, chosen)) return keep()
    modal.confirm({
      title: 'Delete what is older?',
      content: formatRetentionPreview(answer.counts),
      okText: 'Delete and keep it so',
      okButtonProps: { danger: true },
      onOk: keep,
    })
  }
  return (
    <section aria-label="How long it is kept">
      <h2>How long it is kept</h2>
      <div className={styles.kept}>
        {KEPT.map((kind) => (
          <label key={kind}>
            <b>{KEPT_TEXT[kind].title}</b>
            <small>{KEPT_TEXT[kind].about}</small>
            <Select
              size="large"
              aria-label={KEPT_TEXT[kind].title}
              value={keyOf(chosen[kind])}
              options={KEPT_MONTHS.map((months) => ({ value: keyOf(months), label: formatMonths(months) }))}
              onChange={(key: string) => choose(kind, key)}
            />
          </label>
        ))}
        <Button type="primary" size="large" disabled={!isChanged} loading={busy} onClick={save}>
          Save
        </Button>
      </div>
      <p className={styles.quiet}>
        Numbers in force, open complaints and running trials always stay. A member’s own data is taken or erased on
        their page, under <i>More</i>.
      </p>
    </section>
  )
}
