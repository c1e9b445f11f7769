'use client'
import { Button } from 'antd'
import { useRouter } from 'next/navigation'
import { CONSENT_TEXT } from '@/core/messages/riders/consent'
import { ownCommand } from '../../commands/command'
import { useAction } from '../../commands/useAction'
import { useIdempotencyKey } from '../../commands/useIdempotencyKey'
import type { ConsentText } from '../../comfort/limits/ConsentPart'
import styles from './memberPage.module.css'

/** The member's own consent: wording, state, withdrawal. */
export function OwnConsent({ token, consent: { given, wording } }: Readonly<{ token: string; consent: ConsentText }>) {
  const router = useRouter()
  const { act, busy } = useAction()
  const { idFor, forget } = useIdempotencyKey()
  async function change(name: 'ownPage.agreeToNotes' | 'ownPage.withdrawConsent') {
    if (!(await act(() => ownCommand(token, name, {}, idFor(name))))) return
    forget()
    router.refresh()
  }
  return (
    <section className={styles.part} aria-label="Your consent">
      <h2>Notes about you</h2>
      <p>“{wording}”</p>
      <p className={styles.quiet}>{given ? `${given}.` : CONSENT_TEXT.ownNone}</p>
      <Button
        size="large"
        block
        loading={busy}
        onClick={() => change(given ? 'ownPage.withdrawConsent' : 'ownPage.agreeToNotes')}
      >
        {given ? CONSENT_TEXT.ownWithdraw : CONSENT_TEXT.ownAgree}
      </Button>
    </section>
  )
}
