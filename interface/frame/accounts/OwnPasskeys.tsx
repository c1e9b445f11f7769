'use client'
import { Alert, App, Button } from 'antd'
import '@/interface/kit/antd/alert.generated.css'
import { useRouter } from 'next/navigation'
import { useState } from 'react'
import { PASSKEY_TEXT } from '@/core/messages/studio/accounts'
import { DEVICE_NAME, deviceKind } from '@/core/messages/studio/trust'
import { formatDay } from '@/core/messages/words/dates'
import type { OwnPasskey } from '@/server/platform/accounts/passkeys'
import { addPasskey, removePasskey, useHasPasskeys } from '../signIn/passkeyClient'
import styles from './ownAccount.module.css'

/** The passkeys of one's own account: a device that signs in by finger, face or its own code. */
export function OwnPasskeys({ passkeys, timeZone }: Readonly<{ passkeys: readonly OwnPasskey[]; timeZone: string }>) {
  const { message } = App.useApp()
  const router = useRouter()
  const isPossible = useHasPasskeys()
  const [trouble, setTrouble] = useState('')
  const [busy, setBusy] = useState(false)
  async function change(work: () => Promise<string>) {
    setBusy(true)
    setTrouble(await work().catch(() => PASSKEY_TEXT.unreachable))
    setBusy(false)
    router.refresh()
  }
  const add = () =>
    change(async () => {
      const outcome = await addPasskey(DEVICE_NAME[deviceKind(navigator.userAgent, navigator.maxTouchPoints > 1)])
      if (outcome === 'done') message.success(PASSKEY_TEXT.added, 4)
      return outcome === 'done' || outcome === 'givenUp' ? '' : PASSKEY_TEXT[outcome]
    })
  const remove = (id: string) => change(async () => ((await removePasskey(id)) ? '' : PASSKEY_TEXT.refused))
  return (
    <section aria-label="Passkeys" className={styles.form}>
      <h2>Passkeys</h2>
      <p className={styles.quiet}>{isPossible ? PASSKEY_TEXT.about : PASSKEY_TEXT.noName}</p>
      <ul className={styles.passkeys}>
        {passkeys.map(({ id, name, addedAt }) => (
          <li key={id}>
            <span>
              <b>{name}</b>
              {addedAt && <small>added {formatDay(addedAt, timeZone)}</small>}
            </span>
            <Button size="large" danger loading={busy} onClick={() => void remove(id)}>
              Remove
            </Button>
          </li>
        ))}
      </ul>
      <div aria-live="polite">{trouble && <Alert type="error" title={trouble} />}</div>
      {isPossible && (
        <div className={styles.does}>
          <Button size="large" loading={busy} onClick={() => void add()}>
            Add a passkey of this device
          </Button>
        </div>
      )}
    </section>
  )
}
