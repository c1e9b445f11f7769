'use client'
import { Button } from 'antd'
import { useState, useSyncExternalStore } from 'react'
import { deviceKind, TRUST_LEAD, TRUST_STEPS, type DeviceKind } from '@/core/messages/studio/trust'
import { AccountPage } from '../../frame/accounts/AccountPage'
import { Fingerprint } from './Fingerprint'
import styles from './devices.module.css'

const KINDS = Object.keys(TRUST_STEPS) as DeviceKind[]
const never = () => () => undefined
const thisDevice = (): DeviceKind => deviceKind(navigator.userAgent, navigator.maxTouchPoints > 1)

/** How a device is made to trust the studio's certificate. `fingerprint`: null where there is nothing to trust. */
export function TrustPage({ fingerprint, address }: Readonly<{ fingerprint: string | null; address: string }>) {
  const own = useSyncExternalStore(never, thisDevice, () => 'ios' as const)
  const [chosen, setChosen] = useState<DeviceKind | null>(null)
  const kind = chosen ?? own
  if (!fingerprint)
    return (
      <AccountPage title="Nothing to trust" lead="Devices trust this studio’s address by themselves." form={null}>
        <Button type="primary" size="large" block href={address}>
          Open the studio
        </Button>
      </AccountPage>
    )
  return (
    <AccountPage title="Trust this studio" lead={TRUST_LEAD} form={null}>
      <div className={styles.kinds} role="radiogroup" aria-label="Kind of device">
        {KINDS.map((one) => (
          <button key={one} type="button" role="radio" aria-checked={one === kind} onClick={() => setChosen(one)}>
            {TRUST_STEPS[one].name}
          </button>
        ))}
      </div>
      <ol className={styles.steps}>
        {TRUST_STEPS[kind].steps.map((step) => (
          <li key={step}>{step}</li>
        ))}
      </ol>
      <Fingerprint text={fingerprint} />
      <div className={styles.actions}>
        <Button type="primary" size="large" href="/trust/authority.crt">
          Get the certificate
        </Button>
        <Button size="large" href={address}>
          Open the studio
        </Button>
      </div>
    </AccountPage>
  )
}
