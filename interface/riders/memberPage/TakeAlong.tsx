'use client'
import { useState } from 'react'
import type { TakeText } from './takeProps'
import styles from './memberPage.module.css'
import own from './takeAlong.module.css'

type TakeAlongProps = Readonly<{ token: string; take: TakeText }>

/** A member's own file for another studio: they choose what is in it, and take it as a file or as a code. */
export function TakeAlong({ token, take: { sets, hasBody, wish, limits } }: TakeAlongProps) {
  const [body, setBody] = useState(hasBody)
  const [withWish, setWithWish] = useState(false)
  const [chosen, setChosen] = useState<readonly string[]>([])
  /** The choice whose code is shown; another choice takes it away. */
  const [shown, setShown] = useState<string | null>(null)
  const [failed, setFailed] = useState<string | null>(null)
  const choice = new URLSearchParams({
    ...(body && { body: '1' }),
    ...(withWish && { wish: '1' }),
    ...(chosen.length > 0 && { limits: chosen.join(',') }),
  }).toString()
  const address = (file: string) => `/m/${token}/take/${file}?${choice}`
  return (
    <section className={styles.part} aria-label="Take your set-up along">
      <h2>Take your set-up along</h2>
      <p>
        For another studio: where saddle and bars stand, in millimetres, signed by this studio. It works out your
        numbers on its own bikes. What of this is in it is up to you.
      </p>
      <div className={own.choices}>
        <Choice label={sets === 1 ? 'Your numbers' : `Your ${sets} sets of numbers`} isOn isFixed />
        {hasBody && (
          <Choice
            label="What your body’s lengths are taken to be: a first set-up there is quicker"
            isOn={body}
            set={setBody}
          />
        )}
        {wish && <Choice label={`That you like to sit ${wish}`} isOn={withWish} set={setWithWish} />}
        {limits.map(({ id, text }) => (
          <Choice
            key={id}
            label={text}
            isOn={chosen.includes(id)}
            set={(isOn) => setChosen((before) => (isOn ? [...before, id] : before.filter((one) => one !== id)))}
          />
        ))}
      </div>
      <p>
        <a className={styles.way} href={address('set-up.json')}>
          Take the file
        </a>{' '}
        <button type="button" className={own.code} onClick={() => setShown(choice)}>
          Show it as a code
        </button>
      </p>
      {shown === choice &&
        (failed === choice ? (
          <p role="status">It is too much for a code: leave the lengths out, or take the file.</p>
        ) : (
          // eslint-disable-next-line @next/next/no-img-element -- made for this one look
          <img
            className={own.qr}
            src={address('set-up.svg')}
            alt="Code of your set-up, to be photographed at the other studio"
            onError={() => setFailed(choice)}
          />
        ))}
      <p className={styles.quiet}>Whoever has the file can read it. It says your name.</p>
    </section>
  )
}

type ChoiceProps = Readonly<{ label: string; isOn: boolean; isFixed?: true; set?: (isOn: boolean) => void }>

function Choice({ label, isOn, isFixed, set }: ChoiceProps) {
  return (
    <label className={own.choice}>
      <input type="checkbox" checked={isOn} disabled={isFixed} onChange={(event) => set?.(event.target.checked)} />
      {label}
    </label>
  )
}
