'use client'
import { Button, Input, Select } from 'antd'
import '@/interface/kit/antd/select.generated.css'
import { useState } from 'react'
import { KEY_SCOPE_NAME, KEY_SCOPE_TEXT, KEYS_TEXT } from '@/core/messages/studio/accounts'
import type { PeoplePage } from '@/server/pages/studio/people'
import { command } from '../../commands/command'
import { newSecret } from '../../kit/secretToken'
import { useCopy } from '../../kit/useCopy'
import styles from './people.module.css'

type KeyScope = PeoplePage['keys'][number]['scope']
const SCOPES = ['operations', 'desk', 'instructor'] as const
const OPTIONS = SCOPES.map((scope) => ({ value: scope, label: KEY_SCOPE_NAME[scope] }))
const DAY = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short', year: 'numeric' })

type Props = Readonly<{
  keys: PeoplePage['keys']
  busy: boolean
  /** Sends a command and reads the page again; resolves with whether it was carried out. */
  change: (what: () => ReturnType<typeof command>) => Promise<boolean>
}>

/** Keys by which other programs compute, book or note; each is shown once, and ended with one tap. */
export function Keys({ keys, busy, change }: Props) {
  const copy = useCopy()
  const [program, setProgram] = useState('')
  const [scope, setScope] = useState<KeyScope>('operations')
  /** The key made a moment ago: nobody can read it later. */
  const [shown, setShown] = useState<Readonly<{ name: string; key: string }> | null>(null)
  async function make() {
    const { secret: key, fingerprint: keyHash } = await newSecret('ys_')
    if (!(await change(() => command('people.makeKey', { program, scope, keyHash })))) return
    setShown({ name: program.trim(), key })
    setProgram('')
  }
  return (
    <section aria-label="Other programs">
      <h2>Other programs</h2>
      <p className={styles.quiet}>{KEYS_TEXT.about}</p>
      <form
        className={styles.invite}
        onSubmit={(event) => {
          event.preventDefault()
          void make()
        }}
      >
        <Input
          size="large"
          className={styles.program}
          aria-label="Name of the program"
          placeholder="Name of the program"
          maxLength={80}
          value={program}
          onChange={(event) => setProgram(event.target.value)}
        />
        <Select
          size="large"
          aria-label="What it may do"
          value={scope}
          options={OPTIONS}
          onChange={(chosen: KeyScope) => setScope(chosen)}
        />
        <Button size="large" htmlType="submit" loading={busy} disabled={program.trim() === ''}>
          Make a key
        </Button>
        <span className={styles.quiet}>{KEY_SCOPE_TEXT[scope]}</span>
      </form>
      {shown && (
        <div className={styles.key} role="status">
          <b>The key of {shown.name}, shown this once:</b>
          <code>{shown.key}</code>
          <Button size="large" type="primary" onClick={() => copy(shown.key)}>
            Copy the key
          </Button>
        </div>
      )}
      {keys.length > 0 && (
        <ul className={styles.people}>
          {keys.map(({ id, name, scope: of, createdAt, usedAt }) => (
            <li key={id}>
              <span>
                <b>{name}</b>
                <small>
                  {KEY_SCOPE_NAME[of].toLowerCase()}, made {DAY.format(createdAt)},{' '}
                  {usedAt ? `last used ${DAY.format(usedAt)}` : 'never used'}
                </small>
              </span>
              <Button
                size="large"
                danger
                loading={busy}
                onClick={() => change(() => command('people.revokeKey', { keyId: id }))}
              >
                End this key
              </Button>
            </li>
          ))}
        </ul>
      )}
    </section>
  )
}
