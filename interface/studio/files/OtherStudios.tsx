'use client'
import { Button, Input } from 'antd'
import { useRouter } from 'next/navigation'
import { useState } from 'react'
import { KEY_PATTERN } from '@/core/riders/riderFile/riderFile'
import { command } from '../../commands/command'
import { useAction } from '../../commands/useAction'
import { useUndoable } from '../../commands/useUndoable'
import { Link } from '../../kit/Link'
import { useCopy } from '../../kit/useCopy'
import styles from './filesView.module.css'
import own from './otherStudios.module.css'

export type OtherStudiosProps = Readonly<{
  ownKey: string
  print: string
  known: readonly Readonly<{ key: string; name: string; print: string; since: string }>[]
}>

/** Riders' own files: this studio's print, for others to know it by, and the studios it knows. */
export function OtherStudios({ ownKey, print, known }: OtherStudiosProps) {
  const copy = useCopy()
  const { change, busy } = useUndoable()
  const forget = ({ key, name }: OtherStudiosProps['known'][number]) =>
    change({
      action: () => command('riderFiles.forgetStudio', { key }),
      done: `${name} is no longer known: files from there are told numbers.`,
      undo: () => command('riderFiles.knowStudio', { key, studioName: name }),
    })
  return (
    <section className={styles.part} aria-label="Riders’ own files">
      <h2>Riders’ own files</h2>
      <p className={`${styles.quiet} ${own.intro}`}>
        A rider takes their set-up to another studio in a file that this one signs. A studio that knows this one by its
        print takes it as measured; <Link href="/members/file">take a file in here</Link>.
      </p>
      <div className={own.print}>
        <span>This studio’s print</span>
        <code>{print}</code>
        <Button size="large" onClick={() => copy(ownKey)}>
          Copy the key
        </Button>
      </div>
      <h3>Studios known here</h3>
      {known.length === 0 ? (
        <p className={styles.quiet} data-empty>
          None yet. Paste the key another studio gave you, or say so when a rider brings a file from there.
        </p>
      ) : (
        <ul className={own.known}>
          {known.map((studio) => (
            <li key={studio.key}>
              <b>{studio.name}</b>
              <code>{studio.print}</code>
              <span className={styles.quiet}>since {studio.since}</span>
              <Button size="large" type="text" loading={busy} onClick={() => forget(studio)}>
                Forget
              </Button>
            </li>
          ))}
        </ul>
      )}
      <AddStudio />
    </section>
  )
}

const IS_KEY = new RegExp(KEY_PATTERN)

function AddStudio() {
  const router = useRouter()
  const { act, busy } = useAction()
  const [name, setName] = useState('')
  const [key, setKey] = useState('')
  const isKey = IS_KEY.test(key.trim())
  async function add() {
    if (!(await act(() => command('riderFiles.knowStudio', { key: key.trim(), studioName: name })))) return
    setName('')
    setKey('')
    router.refresh()
  }
  return (
    <form
      className={own.add}
      onSubmit={(event) => {
        event.preventDefault()
        void add()
      }}
    >
      <Input
        size="large"
        aria-label="Name of the studio"
        placeholder="Name of the studio"
        maxLength={120}
        value={name}
        onChange={(event) => setName(event.target.value)}
      />
      <Input
        size="large"
        aria-label="Its key"
        placeholder="Its key, 43 letters"
        status={key.trim() === '' || isKey ? '' : 'error'}
        value={key}
        onChange={(event) => setKey(event.target.value)}
      />
      <Button size="large" htmlType="submit" loading={busy} disabled={!isKey || name.trim() === ''}>
        Know it
      </Button>
    </form>
  )
}
