'use client'
import { Button, Modal } from 'antd'
import { useRouter } from 'next/navigation'
import { useState } from 'react'
import { RiderNav } from '../../frame/RiderNav'
import { useAction } from '../../commands/useAction'
import { useIdempotencyKey } from '../../commands/useIdempotencyKey'
import { command } from '../../commands/command'
import { Besides } from './Besides'
import { Causes } from './Causes'
import { ReasonsAside } from './ReasonsAside'
import { ComplaintForm } from './ComplaintForm'
import { NextChange } from './NextChange'
import { EMPTY_COMPLAINT, URGENT_STRENGTH, type ComplaintInput } from '@/core/comfort/complaintInput'
import { LIMIT_REFERRAL } from '@/core/messages/riders/limits'
import { StopBanner } from '../../kit/StopMark'
import styles from './reasons.module.css'
import type { ReasonsPage } from './reasonsPage'
import { Referral } from './Referral'
import { AskConsent } from '../limits/AskConsent'
import { TrialCard } from './TrialCard'

type Props = Readonly<{
  member: Readonly<{ id: string; name: string }>
  page: ReasonsPage
  mayTry: boolean
  mayNote: boolean
}>

/** From complaints to the next best step: red flags first, a running trial, then one change with its reasons. */
export function ReasonsView({ member, page, mayTry, mayNote }: Props) {
  const router = useRouter()
  const { act, busy } = useAction()
  const { idFor, forget } = useIdempotencyKey()
  const [asking, setAsking] = useState<Readonly<{ noteId: string | null; begun: Partial<ComplaintInput> }> | null>(null)
  const [hasAgreed, setAgreed] = useState(false)
  const agrees = page.agrees || hasAgreed
  const changed = () => router.refresh()
  const referred = page.complaints.filter(({ flags }) => flags.length > 0)
  async function add(complaint: ComplaintInput, noteId = asking?.noteId ?? null) {
    const from = { bikeId: page.bikeId, noteId, ...(!page.agrees && { agrees }) }
    if (
      !(await act(() =>
        command(
          'comfort.saveComplaint',
          { memberId: member.id, said: complaint, ...from },
          idFor({ said: complaint, from }),
        ),
      ))
    )
      return
    forget()
    setAsking(null)
    changed()
  }
  // While no cause is likely enough, checks come before changes.
  const looksFirst = waitingFor(page) && (page.causes[0]?.share ?? 0) < SURE_ENOUGH
  const waiting = page.complaints.filter(({ onTrial }) => !onTrial)
  return (
    <article className={styles.page}>
      <header className={styles.head}>
        <div className={styles.who}>
          <h1>{member.name}</h1>
          <RiderNav memberId={member.id} here="Reasons" />
        </div>
        {mayNote && (
          <Button size="large" onClick={() => setAsking({ noteId: null, begun: {} })}>
            Add a complaint
          </Button>
        )}
      </header>
      {page.limitStop && referred.length === 0 && (
        <StopBanner
          why={page.limitStop}
          referral={LIMIT_REFERRAL}
          answer={{ href: `/riders/${member.id}#limits`, name: 'Open the limits' }}
        />
      )}
      {page.flagged.map((flag) => (
        <section key={flag.id} className={styles.flag} aria-label="Red flag of the floor">
          <p>
            <b>{flag.text}.</b> Change nothing until you recorded where it is and referred the rider.
          </p>
          {mayNote && (
            <Button
              size="large"
              type="primary"
              loading={busy}
              onClick={() =>
                flag.begun.what
                  ? add(wholeOf(flag.begun.what), flag.id)
                  : setAsking({ noteId: flag.id, begun: flag.begun })
              }
            >
              {flag.begun.what ? 'Record and refer' : 'Say where'}
            </Button>
          )}
        </section>
      ))}
      {referred.length > 0 && (
        <Referral
          member={member}
          why={page.refer ?? referred.flatMap(({ flags }) => flags).join(', ')}
          say={page.referral}
          complaints={referred}
          mayNote={mayNote}
          changed={changed}
        />
      )}
      <div className={styles.columns}>
        <div className={styles.main}>
          {looksFirst && <LookFirst page={page} />}
          {page.running.map((trial) => (
            <TrialCard key={trial.id} trial={trial} mayEnd={mayTry} mayRate={mayNote} changed={changed} />
          ))}
          {page.complaints.length === 0 && page.flagged.length === 0 && !page.limitStop && (
            <p className={styles.empty} data-empty>
              Nothing is open. What is felt comes here from the floor, from the rider’s own page, or with “Add a
              complaint”.
            </p>
          )}
          {page.sentence && waiting.length > 0 && (
            <NextChange
              key={waiting[0].id}
              memberId={member.id}
              page={page}
              complaints={waiting}
              mayTry={mayTry}
              changed={changed}
            />
          )}
          {page.causes.length > 0 && <Causes causes={page.causes} stopped={page.refer !== null} />}
          <Besides memberId={member.id} page={page} />
        </div>
        <ReasonsAside
          member={member}
          page={page}
          mayNote={mayNote}
          changed={changed}
          more={(one) => one.begun && setAsking({ noteId: one.id, begun: one.begun })}
        >
          {!looksFirst && <LookFirst page={page} />}
        </ReasonsAside>
      </div>
      <p className={styles.caution}>
        Common practice and what was noted here, not a diagnosis. Local rules and licensed practice stand above it.
      </p>
      <Modal
        open={asking !== null}
        onCancel={() => setAsking(null)}
        footer={null}
        title={`What does ${member.name} feel?`}
        width={720}
        destroyOnHidden
      >
        {asking && !agrees && <AskConsent name={member.name} wording={page.wording} onAgree={() => setAgreed(true)} />}
        {asking && agrees && (
          <ComplaintForm
            begun={asking.begun}
            referral={page.referral}
            reporter="instructor"
            busy={busy}
            send={(complaint) => add(complaint)}
            submit="Record it"
          />
        )}
      </Modal>
    </article>
  )
}

/** Below this chance of the likeliest cause a look comes before a change; ours. */
const SURE_ENOUGH = 0.4

const waitingFor = ({ complaints }: ReasonsPage): boolean => complaints.some(({ onTrial }) => !onTrial)

/** What to look at or measure before anything is changed. */
function LookFirst({ page }: { page: ReasonsPage }) {
  if (page.checks.length === 0) return null
  return (
    <section className={styles.part} aria-label="Look first">
      <h2>Look first</h2>
      <ol className={styles.checks}>
        {page.checks.map((check, i) => (
          <li key={i}>{check}</li>
        ))}
        {page.saddleLine && <li>{page.saddleLine}</li>}
      </ol>
    </section>
  )
}

/** The whole complaint of a red flag of the floor that names what is felt. */
const wholeOf = (what: ComplaintInput['what']): ComplaintInput => ({
  ...EMPTY_COMPLAINT,
  what,
  strength: URGENT_STRENGTH,
})
