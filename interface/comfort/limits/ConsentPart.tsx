'use client'
import { Button } from 'antd'
import { useRouter } from 'next/navigation'
import { CONSENT_TEXT } from '@/core/messages/riders/consent'
import { command } from '../../commands/command'
import { useAction } from '../../commands/useAction'
import part from './limits.module.css'
import styles from './consent.module.css'

/** A rider's consent in words; null without one. */
export type ConsentText = Readonly<{ given: string | null; wording: string }>

/** Whether a rider agreed to notes about body and health, when and how; and the end of it. */
export function ConsentPart({
  memberId,
  consent: { given, wording },
}: Readonly<{ memberId: string; consent: ConsentText }>) {
  const router = useRouter()
  const { act, busy } = useAction()
  const change = async (what: () => ReturnType<typeof command>) => {
    if (await act(what)) router.refresh()
  }
  return (
    <section id="consent" className={part.part} aria-label={CONSENT_TEXT.title}>
      <h2>{CONSENT_TEXT.title}</h2>
      <p className={given ? styles.given : part.none}>{given ? `${given}.` : CONSENT_TEXT.none}</p>
      {!given && <p className={styles.quiet}>“{wording}”</p>}
      <div className={`${styles.does} no-print`}>
        {given ? (
          <Button
            size="large"
            loading={busy}
            onClick={() => change(() => command('members.withdrawConsent', { memberId }))}
          >
            {CONSENT_TEXT.withdraw}
          </Button>
        ) : (
          (['spoken', 'written'] as const).map((way) => (
            <Button
              key={way}
              size="large"
              loading={busy}
              onClick={() => change(() => command('members.giveConsent', { memberId, way }))}
            >
              {CONSENT_TEXT[way]}
            </Button>
          ))
        )}
      </div>
    </section>
  )
}
