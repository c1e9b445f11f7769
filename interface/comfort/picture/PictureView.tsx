'use client'
import { REFERRAL } from '@/core/classes/watch/comfort'
import { Button, Input } from 'antd'
import { useState } from 'react'
import { useAction } from '../../commands/useAction'
import { command } from '../../commands/command'
import { StudioNav } from '../../frame/StudioNav'
import { Link } from '../../kit/Link'
import styles from './picture.module.css'
import type { PicturePage } from './picturePage'

/** What a studio's complaints, cues and trials show together, only where the numbers suffice. */
export function PictureView({ page, referral, mayWord }: Props) {
  return (
    <article className={styles.page}>
      <header className={styles.head}>
        {mayWord && <StudioNav here="Picture" />}
        <h1>The studio’s picture</h1>
      </header>
      <p className={styles.lead}>{page.lead}</p>
      <div className={styles.columns}>
        <section aria-label="Saddles to look along">
          <h2>Saddles to look along</h2>
          {page.bikes.length === 0 ? (
            <p className={styles.none} data-empty>
              No bike stands out by one-sided complaints, as far as these rides can tell.
            </p>
          ) : (
            page.bikes.map(({ id, text }) => (
              <p key={id} className={styles.finding}>
                {text} <Link href={`/bikes/${id}`}>Open the bike</Link>
              </p>
            ))
          )}
        </section>
        <section aria-label="Cues">
          <h2>Cues that hold</h2>
          {page.cues.length === 0 ? (
            <p className={styles.none} data-empty>
              {page.noCues}
            </p>
          ) : (
            page.cues.map((text) => (
              <p key={text} className={styles.finding}>
                {text}
              </p>
            ))
          )}
        </section>
        <section aria-label="Complaints by type of bike">
          <h2>What is felt, by type of bike</h2>
          {page.complaints.length === 0 ? (
            <p className={styles.none} data-empty>
              Too few riders told of the same thing on one type for a share to mean anything.
            </p>
          ) : (
            <ul className={styles.shares}>
              {page.complaints.map(({ what, type, shareText, low, high, share }) => (
                <li key={`${what} ${type}`}>
                  <b>{what}</b>
                  <span>{type}</span>
                  <span className={styles.range} aria-hidden="true">
                    <i style={{ left: `${100 * low}%`, right: `${100 * (1 - high)}%` }} />
                    <em style={{ left: `${100 * share}%` }} />
                  </span>
                  <small>{shareText}</small>
                </li>
              ))}
            </ul>
          )}
        </section>
        <section aria-label="Trials">
          <h2>How trials end</h2>
          {page.trials.length === 0 ? (
            <p className={styles.none} data-empty>
              No trial was begun yet.
            </p>
          ) : (
            <ul className={styles.trials}>
              {page.trials.map(({ cause, text, outcomeText }) => (
                <li key={cause}>
                  <b>{cause}</b>
                  <span>{text}</span>
                  {outcomeText && <small>{outcomeText}</small>}
                </li>
              ))}
            </ul>
          )}
        </section>
      </div>
      {mayWord && <ReferralWords referral={referral} />}
    </article>
  )
}

type Props = Readonly<{
  page: PicturePage
  /** The studio's own words, or null. */
  referral: string | null
  /** The product's. */
  mayWord: boolean
}>

/** The words to referred riders; the referral itself does not depend on the words. */
function ReferralWords({ referral }: Pick<Props, 'referral'>) {
  const { act, busy } = useAction()
  const [saved, setSaved] = useState(referral ?? '')
  const [typed, setTyped] = useState(referral ?? REFERRAL)
  async function save(words: string) {
    if (!(await act(() => command('comfort.saveReferral', { words })))) return
    setSaved(words.trim())
    setTyped(words.trim() || REFERRAL)
  }
  return (
    <section className={styles.words} aria-label="Words for riders who are referred">
      <h2>What referred riders are told</h2>
      <p className={styles.lead}>
        A red flag always stops advice on the bike; that cannot be turned off. The words are yours: name the clinic, the
        emergency number and the rules that hold here.
      </p>
      <Input.TextArea
        aria-label="What referred riders are told"
        autoSize={{ minRows: 3 }}
        maxLength={800}
        value={typed}
        onChange={(event) => setTyped(event.target.value)}
      />
      <div className={styles.does}>
        <Button
          size="large"
          type="primary"
          loading={busy}
          disabled={typed.trim() === (saved || REFERRAL)}
          onClick={() => save(typed)}
        >
          Keep these words
        </Button>
        {saved !== '' && (
          <Button size="large" disabled={busy} onClick={() => save('')}>
            As they were
          </Button>
        )}
      </div>
    </section>
  )
}
