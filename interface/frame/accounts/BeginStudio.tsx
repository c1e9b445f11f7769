'use client'
import { Input, Select } from 'antd'
import '@/interface/kit/antd/select.generated.css'
import { useState, useSyncExternalStore } from 'react'
import { AccountFields, NOTHING_TYPED } from './AccountFields'
import { AccountPage } from './AccountPage'
import styles from '../signIn/signIn.module.css'
import { signInWith, useAccountForm } from './useAccountForm'

const LEAD =
  'This page opens once. Type the code that was printed where the studio was started; everything else can be changed ' +
  'later under Studio.'

/** The first start of an installation: the code, the studio, and its first manager. */
export function BeginStudio({ zones }: Readonly<{ zones: readonly string[] }>) {
  const [code, setCode] = useState('')
  const [facts, setFacts] = useState({ name: '', place: '', timeZone: '' })
  const [manager, setManager] = useState(NOTHING_TYPED)
  const { send, trouble, busy } = useAccountForm('/api/accounts/begin')
  // Only the browser has it: the server renders without it.
  const own = useSyncExternalStore(
    neverChanges,
    () => ownZone(zones),
    () => '',
  )
  const timeZone = facts.timeZone || own
  async function begin() {
    if (await send({ code, facts: { ...facts, timeZone }, manager }))
      await signInWith(manager.username, manager.password, '/studio/first-hour')
  }
  return (
    <AccountPage
      title="A studio of its own"
      lead={LEAD}
      form={{ send: () => void begin(), button: 'Begin', busy, trouble }}
    >
      <label htmlFor="code">Code of this start</label>
      <Input
        id="code"
        size="large"
        autoComplete="one-time-code"
        autoCapitalize="characters"
        value={code}
        onChange={(event) => setCode(event.target.value)}
        autoFocus
      />
      <div className={styles.pair}>
        <div>
          <label htmlFor="studio">The studio’s name</label>
          <Input
            id="studio"
            size="large"
            value={facts.name}
            onChange={(event) => setFacts({ ...facts, name: event.target.value })}
          />
        </div>
        <div>
          <label htmlFor="place">Place</label>
          <Input
            id="place"
            size="large"
            value={facts.place}
            onChange={(event) => setFacts({ ...facts, place: event.target.value })}
          />
        </div>
      </div>
      <label htmlFor="zone">Time zone</label>
      <Select
        id="zone"
        size="large"
        showSearch
        aria-label="Time zone"
        value={timeZone || undefined}
        placeholder="Region/City"
        options={zones.map((zone) => ({ value: zone, label: zone.replaceAll('_', ' ') }))}
        onChange={(chosen: string) => setFacts({ ...facts, timeZone: chosen })}
      />
      <AccountFields typed={manager} onTyped={setManager} />
    </AccountPage>
  )
}

const neverChanges = () => () => undefined

/** The zone of this device, where the server knows it; else empty. */
function ownZone(zones: readonly string[]): string {
  const zone = new Intl.DateTimeFormat().resolvedOptions().timeZone
  return zones.includes(zone) ? zone : ''
}
