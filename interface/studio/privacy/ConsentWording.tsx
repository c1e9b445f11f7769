'use client'
import { App, Button, Input } from 'antd'
import { useRouter } from 'next/navigation'
import { useState } from 'react'
import { MAX_WORDING_LENGTH } from '@/core/riders/consent/consent'
import type { Wording } from '@/server/riders/consent'
import { command } from '../../commands/command'
import { useAction } from '../../commands/useAction'
import styles from './privacy.module.css'

/** The consent question of the studio; each saved wording is a version. */
export function ConsentWording({ version, wording }: Wording) {
  const router = useRouter()
  const { message } = App.useApp()
  const { act, busy } = useAction()
  const [typed, setTyped] = useState(wording)
  const isChanged = typed.trim() !== wording && typed.trim() !== ''
  async function save() {
    if (!(await act(() => command('privacy.saveConsentWording', { wording: typed })))) return
    message.success('From now on members are asked so.', 4)
    router.refresh()
  }
  return (
    <section aria-label="Consent">
      <h2>What members are asked</h2>
      <form
        className={styles.wording}
        onSubmit={(event) => {
          event.preventDefault()
          void save()
        }}
      >
        <Input.TextArea
          size="large"
          aria-label="Wording of the consent"
          autoSize={{ minRows: 3, maxRows: 8 }}
          maxLength={MAX_WORDING_LENGTH}
          value={typed}
          onChange={(event) => setTyped(event.target.value)}
        />
        <Button type="primary" size="large" htmlType="submit" disabled={!isChanged} loading={busy}>
          Save
        </Button>
      </form>
      <p className={styles.quiet}>
        Wording {version}. Whoever agreed to an earlier one need not be asked again; a change of what is meant needs a
        new yes.
      </p>
    </section>
  )
}
