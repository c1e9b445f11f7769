'use client'
import { App, Button, Modal } from 'antd'
import Link from 'next/link'
import { useRouter } from 'next/navigation'
import { useState } from 'react'
import { RiderNav } from '../rider/RiderNav'
import { useAction } from '../shared/useAction'
import { useIdempotencyKey } from '../shared/useIdempotencyKey'
import { command } from '../commands/command'
import { ComplaintForm } from './ComplaintForm'
import { ExerciseCard } from './ExerciseDrawing'
import { NextChange } from './NextChange'
import { NOTHING_SAID, URGENT_STRENGTH, type ComplaintSaid } from '@/core/complaints/complaintSaid'
import styles from './reasons.module.css'
import type { CauseSummary, ComplaintSummary, ReasonsPage } from './reasonsPage'
import { Referral } from './Referral'
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
  const [asking, setAsking] = useState<Readonly<{ noteId: string | null; begun: Partial<ComplaintSaid> }> | null>(null)
  const changed = () => router.refresh()
  const referred = page.complaints.filter(({ flags }) => flags.length > 0)
  async function add(said: ComplaintSaid, noteId = asking?.noteId ?? null) {
    const from = { bikeId: page.bikeId, noteId }
    if (
      !(await act(() =>
        command('comfort.keepComplaint', { memberId: member.id, said, ...from }, idFor({ said, from })),
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
          {page.complaints.length === 0 && page.flagged.length === 0 && (
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
          {page.kit.length > 0 && (
            <section className={styles.part} aria-label="Kit and habit">
              <h2>Kit and habit</h2>
              {page.kit.map(({ about, say }) => (
                <p key={about} className={styles.kit}>
                  <b>{about}.</b> {say}
                </p>
              ))}
            </section>
          )}
          {page.offBike && (
            <section className={styles.part} aria-label="Off the bike">
              <h2>A suggestion besides</h2>
              {page.offBike.exercise ? (
                <ExerciseCard exercise={page.offBike.exercise} />
              ) : (
                <p className={styles.words}>{page.offBike.words}</p>
              )}
              <p className={styles.quiet}>
                A suggestion, not therapy. What hurts while doing it is left out.{' '}
                <Link href="/class/exercises">All exercises</Link>
              </p>
            </section>
          )}
        </div>
        <aside className={styles.aside}>
          {page.complaints.length > 0 && (
            <section className={styles.part} aria-label="Complaints">
              <h2>What is felt</h2>
              <ul>
                {page.complaints.map((one) => (
                  <Felt
                    key={one.id}
                    memberId={member.id}
                    complaint={one}
                    mayNote={mayNote}
                    changed={changed}
                    more={() => one.begun && setAsking({ noteId: one.id, begun: one.begun })}
                  />
                ))}
              </ul>
            </section>
          )}
          {!looksFirst && <LookFirst page={page} />}
          {page.conflicts.length > 0 && (
            <section className={styles.part} aria-label="Opposite wishes">
              <h2>Does not go together</h2>
              {page.conflicts.map((conflict) => (
                <p key={conflict} className={styles.conflict}>
                  {conflict}
                </p>
              ))}
            </section>
          )}
          {page.past.length > 0 && (
            <section className={styles.part} aria-label="Earlier trials">
              <h2>Earlier trials</h2>
              <ul>
                {page.past.map((trial) => (
                  <li key={trial.id} className={styles.past}>
                    <b>{trial.said}</b>
                    <span>
                      {trial.ended}; {trial.ratings}
                    </span>
                  </li>
                ))}
              </ul>
            </section>
          )}
        </aside>
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
        {asking && (
          <ComplaintForm
            begun={asking.begun}
            referral={page.referral}
            asks="instructor"
            busy={busy}
            send={(said) => add(said)}
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
const wholeOf = (what: ComplaintSaid['what']): ComplaintSaid => ({ ...NOTHING_SAID, what, strength: URGENT_STRENGTH })

/** `stopped`: while somebody is sent on, what would put a cause right is not told. */
function Causes({ causes, stopped }: { causes: readonly CauseSummary[]; stopped: boolean }) {
  const [open, setOpen] = useState<string | null>(causes[0].cause)
  return (
    <section className={styles.part} aria-label="What may be behind it">
      <h2>What may be behind it</h2>
      <ul className={styles.causes}>
        {causes.map((one) => (
          <li key={one.cause}>
            <button
              type="button"
              aria-expanded={open === one.cause}
              onClick={() => setOpen(open === one.cause ? null : one.cause)}
            >
              <b>{one.name}</b>
              <span className={styles.bar} aria-hidden="true">
                <i style={{ width: `${Math.max(2, 100 * one.share)}%` }} />
              </span>
              <small>{one.chance}</small>
            </button>
            {open === one.cause && (
              <div className={styles.why}>
                {one.for.length > 0 && (
                  <ul aria-label="For it">
                    {one.for.map((line, i) => (
                      <li key={i} className={styles.pro}>
                        {line}
                      </li>
                    ))}
                  </ul>
                )}
                {one.against.length > 0 && (
                  <ul aria-label="Against it">
                    {one.against.map((line, i) => (
                      <li key={i} className={styles.contra}>
                        {line}
                      </li>
                    ))}
                  </ul>
                )}
                {!stopped && <p className={styles.quiet}>Where it is the cause: {one.remedy.toLowerCase()}.</p>}
              </div>
            )}
          </li>
        ))}
      </ul>
    </section>
  )
}

function Felt({
  memberId,
  complaint,
  mayNote,
  changed,
  more,
}: {
  memberId: string
  complaint: ComplaintSummary
  mayNote: boolean
  changed: () => void
  /** Says when it comes and whether it lasts of what was tapped on the floor. */
  more: () => void
}) {
  const { message } = App.useApp()
  const { act, busy } = useAction()
  const { id, text, when, line, from } = complaint
  const reopen = async () => {
    message.destroy(id)
    if (await act(() => command('comfort.reopenComplaint', { memberId, complaintId: id }))) changed()
  }
  const close = async () => {
    if (!(await act(() => command('comfort.endComplaint', { memberId, complaintId: id })))) return
    const undo = (
      <Button size="large" type="link" onClick={reopen}>
        Undo
      </Button>
    )
    message.open({ key: id, type: 'success', content: <>It is over. {undo}</>, duration: 10 })
    changed()
  }
  return (
    <li className={styles.felt}>
      <b>{text}</b>
      {when && <span>{when}</span>}
      {line && <q>{line}</q>}
      <small>
        {from}
        {complaint.onTrial && ', on trial'}
      </small>
      {mayNote && (
        <div className={styles.does}>
          {complaint.begun && (
            <Button size="large" onClick={more} aria-label={`Say more: ${text}`}>
              Say more
            </Button>
          )}
          <Button size="large" loading={busy} onClick={close} aria-label={`It is over: ${text}`}>
            It is over
          </Button>
        </div>
      )}
    </li>
  )
}
