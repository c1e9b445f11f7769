'use client'
import { Button } from 'antd'
import { useRouter } from 'next/navigation'
import { useAction } from '../../commands/useAction'
import { command } from '../../commands/command'
import rider from './rider.module.css'
import { useCopy } from '../../kit/useCopy'
import styles from './ownPage.module.css'

export type OwnPageLink = Readonly<{ address: string; qr: string; until: string }>
export type MessageSummary = Readonly<{ id: string; text: string; when: string; handled: boolean }>

type Props = Readonly<{
  memberId: string
  link: OwnPageLink | null
  /** Messages from the rider's page; null where the user's role sees none. */
  messages: readonly MessageSummary[] | null
  mayLink: boolean
}>

/** The rider's own page: the link that opens it, and messages from there. */
export function OwnPage({ memberId, link, messages, mayLink }: Props) {
  const router = useRouter()
  const { act, busy } = useAction()
  const copy = useCopy()
  const change = async (what: () => ReturnType<typeof command>) => {
    if (await act(what)) router.refresh()
  }
  return (
    <section className={`${rider.part} no-print`} aria-label="Their own page">
      <h2>Their own page</h2>
      {link ? (
        <div className={styles.link}>
          {/* eslint-disable-next-line @next/next/no-img-element -- drawn on the server, nothing to fetch */}
          <img src={`data:image/svg+xml;utf8,${encodeURIComponent(link.qr)}`} alt="QR code of the link" />
          <div>
            <p>Their numbers, how to set them, and their story with what was seen and felt, on their own phone.</p>
            <p className={styles.address}>{link.address}</p>
            <p className={rider.quiet}>Opens for whoever has it, until {link.until}.</p>
            <div className={styles.does}>
              <Button size="large" onClick={() => copy(link.address)}>
                Copy the link
              </Button>
              <Button size="large" href={link.address} target="_blank" rel="noreferrer">
                See it
              </Button>
              {mayLink && (
                <Button
                  size="large"
                  loading={busy}
                  onClick={() => change(() => command('register.revokeOwnPage', { memberId }))}
                >
                  End this link
                </Button>
              )}
            </div>
          </div>
        </div>
      ) : (
        <div className={styles.none}>
          <p>
            A private link to their numbers; before a first visit they answer and measure there, and the bike is nearly
            right when they come.
          </p>
          {mayLink && (
            <Button
              size="large"
              loading={busy}
              onClick={() => change(() => command('register.openOwnPage', { memberId }))}
            >
              Make a link
            </Button>
          )}
        </div>
      )}
      {messages && messages.length > 0 && (
        <ul className={styles.messages}>
          {messages.map(({ id, text, when, handled }) => (
            <li key={id} className={handled ? styles.handled : undefined}>
              <span>{text}</span>
              <span className={rider.quiet}>{when}</span>
              {handled ? (
                <span className={rider.quiet}>seen to</span>
              ) : (
                <Button
                  size="large"
                  disabled={busy}
                  onClick={() => change(() => command('register.handleMessage', { messageId: id }))}
                >
                  Seen to
                </Button>
              )}
            </li>
          ))}
        </ul>
      )}
    </section>
  )
}
