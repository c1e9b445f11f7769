'use client'
import { Button, Input } from 'antd'
import { useState } from 'react'
import { REGION_NAME, REGIONS, SIGNS, type Sign } from '@/core/classes/watch/signs'
import { useAction } from '../../commands/useAction'
import { command } from '../../commands/command'
import { Link } from '../../kit/Link'
import styles from './cues.module.css'

/** The cue of every sign, in the studio's own words where it has any. */
export function CuesView({ own }: Readonly<{ own: Readonly<Record<string, string>> }>) {
  return (
    <article className={styles.page}>
      <header className={styles.head}>
        <h1>Cues</h1>
        <Link href="/class">Classes</Link>
        <Link href="/class/exercises">Off the bike</Link>
      </header>
      <p className={styles.lead}>
        One short sentence each, aimed at the root: feet before knees, sit bones before shoulders, breastbone before
        neck. Write yours; what you leave empty keeps the words shown.
      </p>
      {REGIONS.map((region) => (
        <section key={region} aria-label={REGION_NAME[region]}>
          <h2>{REGION_NAME[region]}</h2>
          <ul>
            {SIGNS.filter((sign) => sign.region === region).map((sign) => (
              <CueLine key={sign.sign} sign={sign} own={own[sign.sign] ?? ''} />
            ))}
          </ul>
        </section>
      ))}
    </article>
  )
}

function CueLine({ sign, own }: { sign: Sign; own: string }) {
  const { act, busy } = useAction()
  const [saved, setSaved] = useState(own)
  const [typed, setTyped] = useState(own)
  const save = async (words: string) => {
    const done = await act(() => command('classes.changeCue', { sign: sign.sign, cue: words.trim() || null }))
    if (done) setSaved(words.trim())
  }
  return (
    <li className={styles.line}>
      <label htmlFor={`cue-${sign.sign}`}>{sign.name}</label>
      <Input
        id={`cue-${sign.sign}`}
        size="large"
        value={typed}
        maxLength={200}
        placeholder={sign.cue}
        onChange={(e) => setTyped(e.target.value)}
        onPressEnter={() => save(typed)}
      />
      {typed.trim() !== saved ? (
        <Button size="large" type="primary" loading={busy} onClick={() => save(typed)}>
          Keep
        </Button>
      ) : (
        saved !== '' && (
          <Button
            size="large"
            loading={busy}
            onClick={() => {
              setTyped('')
              void save('')
            }}
          >
            As it was
          </Button>
        )
      )}
    </li>
  )
}
