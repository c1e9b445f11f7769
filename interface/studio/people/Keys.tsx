'use client'
import { Button, Input, Select } from 'antd'
import '@/interface/kit/antd/select.generated.css'
import { useState } from 'react'
import { KEY_SCOPE_NAME, KEY_SCOPE_TEXT, KEYS_TEXT } from '@/core/messages/studio/accounts'
import type { PeoplePage } from '@/server/pages/studio/people'
import { command } from '../../commands/command'
import { useCopy } from '../../kit/useCopy'
import styles from './people.module.css'

type KeyScope = PeoplePage['keys'][number]['scope']
const SCOPES = ['operations', 'desk', 'instructor'] as const
const OPTIONS = SCOPES.map((scope) => ({ value: scope, label: KEY_SCOPE_NAME[scope] }))
const DAY = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short', year: 'numeric' })

/** A new key of 256 random bits, and its fingerprint: the server never has the key itself. */
async function newKey(): Promise<Readonly<{ key: string; keyHash: string }>> {
  const bytes = crypto.getRandomValues(new Uint8Array(32))
  const text = btoa(String.fromCharCode(...bytes))
  const key = `ys_${text.replaceAll('+', '-').replaceAll('/', '_').replaceAll('=', '')}`
  const hash = await crypto.subtle.digest('SHA-256', new TextEncoder().encode(key))
  return { key, keyHash: [...new Uint8Array(hash)].map((byte) => byte.toString(16).padStart(2, '0')).join('') }
}

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
    const { key, keyHash } = await newKey()
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
