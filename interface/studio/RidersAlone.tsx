'use client'
import { App, Switch } from 'antd'
import '@/interface/kit/antd/switch.generated.css'
import { useState } from 'react'
import { command } from '../commands/command'
import { useAction } from '../commands/useAction'
import { Link } from '../kit/Link'
import styles from './studioView.module.css'

/** Whether riders may set a machine up alone by its code; at once, for every machine. */
export function RidersAlone({ allowed: first }: Readonly<{ allowed: boolean }>) {
  const { message } = App.useApp()
  const { act, busy } = useAction()
  const [allowed, setAllowed] = useState(first)
  async function change(next: boolean) {
    if (!(await act(() => command('alone.allow', { allowed: next })))) return
    setAllowed(next)
    message.success(next ? 'Riders may set a bike up alone.' : 'The codes show the bike, and no set-up alone.', 4)
  }
  return (
    <section className={styles.choice} aria-label="Alone at the bike">
      <div>
        <h2>Alone at the bike</h2>
        <p className={styles.quiet}>
          What the code on a bike opens to anybody. <Link href="/bikes">Print the codes</Link>
        </p>
      </div>
      <label className={styles.learns}>
        <Switch checked={allowed} loading={busy} onChange={change} />
        Riders may set a bike up alone; whoever leaves a name is first in the class’s list
      </label>
    </section>
  )
}
