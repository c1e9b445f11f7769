'use client'
import { EllipsisOutlined } from '@ant-design/icons'
import { Button, Dropdown, type MenuProps } from 'antd'
import { useRouter } from 'next/navigation'
import { useMemo, useState, type ReactNode } from 'react'
import type { Label } from '@/core/base/conventions'
import type { Certainty } from '@/core/setups/register/entry'
import type { RecommendRequest } from '@/core/setups/recommend/request/request'
import { formatNaturalFrequency } from '@/core/messages/words/phrases'
import { formatBodyLength, type UnitSystem } from '@/core/base/length'
import type { MemberRecord } from '@/server/riders/members/members'
import { EditMember } from '../members/EditMember'
import { MergeMember } from '../members/MergeMember'
import { useUnitSystem } from '../../kit/theme/DevicePreferences'
import { useRefreshAfterDelivery } from '../../offline/useRefreshAfterDelivery'
import { StopBanner } from '../../kit/StopMark'
import { RiderMoves } from '../../setups/move/RiderMoves'
import { command } from '../../commands/command'
import { useAction } from '../../commands/useAction'
import { useRecommendation } from '../../compute/useRecommendation'
import { Changed, type NumbersOnType } from './Changed'
import { ChooseBike } from '../otherBikes/ChooseBike'
import { Drawings } from './Drawings'
import { FromTape } from '../otherBikes/FromTape'
import { Limits, type RiderLimitText } from '../../comfort/limits/Limits'
import type { StopText } from '../../comfort/limits/stopProps'
import { Plans, type RiderPlanText } from '../../comfort/limits/Plans'
import { Programmes } from '../../comfort/programme/Programmes'
import type { ProgrammesText } from '../../comfort/programme/programmeText'
import { ConsentPart, type ConsentText } from '../../comfort/limits/ConsentPart'
import { NumbersCard, type CurrentSet } from './NumbersCard'
import { OtherBikes, type StudioType } from '../otherBikes/OtherBikes'
import { OwnPage, type MessageSummary, type OwnPageLink } from './OwnPage'
import styles from './rider.module.css'
import { RiderNav } from '../../frame/RiderNav'
import { Link } from '../../kit/Link'
import { SeenInClass, type NoteSummary } from './SeenInClass'
import { TimeLine } from './TimeLine'
import type { TimelineEntry } from './timelineEntries'

/** One of the sets in force, with what it takes to carry it elsewhere. */
export type RiderSet = CurrentSet &
  Readonly<{ lineId: string; purposeOf: string; certainty: Certainty; setting: NumbersOnType }>

export type RiderViewProps = Readonly<{
  /** The height is null for users who may not see bodies. */
  member: MemberRecord
  maySetUp: boolean
  mayEdit: boolean
  /** Whether this person looks over what trainees saved. */
  mayConfirm: boolean
  mayMerge: boolean
  /** Whether this person may take and erase all that is stored about the rider. */
  seesFile: boolean
  /** The sets in force, the one to show first first. */
  sets: readonly RiderSet[]
  timeline: Readonly<{ entries: readonly TimelineEntry[]; more: boolean }>
  /** What the numbers of one entry rest on, to work the chance out of; null where the role sees none. */
  request: (RecommendRequest & Readonly<{ entryId: string; seatHeight: Label | null }>) | null
  types: readonly StudioType[]
  /** An open red flag in words, with the referral sentence; null without one. */
  stop: StopText | null
  /** The rider's seat in the class that runs or comes next today. */
  seat: Readonly<{ bikeId: string; number: number; when: string }> | null
  /** The sentence about a bike that changed since, or null. */
  changed: string | null
  open: readonly { id: string; text: string }[]
  bikes: readonly { id: string; number: number; type: string }[]
  /** Null where this person's role sees none. */
  notes: readonly NoteSummary[] | null
  /** Null where this person's role sees none. */
  limits: readonly RiderLimitText[] | null
  /** Null where this person's role sees none. */
  plans: readonly RiderPlanText[] | null
  /** Null where this person's role sees none. */
  consent: ConsentText | null
  /** Null where this person's role sees none. */
  programmes: ProgrammesText | null
  /** On the studio's clock, YYYY-MM-DD. */
  today: string
  /** Null for a user without notes: the page behind the link shows them. */
  own: Readonly<{ link: OwnPageLink | null; messages: readonly MessageSummary[] | null }> | null
}>

const CAUTION =
  'A comfort set-up, not medical advice. Sharp, growing or lasting pain, numbness, swelling, chest pain or ' +
  'dizziness: stop, and refer the rider to a licensed clinician.'

/** One rider: the numbers large enough to read from the next bike, on every bike, then how they came to be. */
export function RiderView({
  member,
  maySetUp,
  mayEdit,
  mayConfirm,
  mayMerge,
  seesFile,
  sets,
  timeline,
  request: requestParts,
  types,
  stop,
  seat,
  changed,
  open,
  bikes,
  notes,
  limits,
  plans,
  consent,
  programmes,
  today,
  own,
}: RiderViewProps) {
  useRefreshAfterDelivery()
  const router = useRouter()
  const [choosing, setChoosing] = useState<'setUp' | 'told' | null>(null)
  const [modal, setModal] = useState<Modal | null>(null)
  const [chosen, setChosen] = useState<string | null>(null)
  const shown = sets.find(({ entryId }) => entryId === chosen) ?? sets[0]
  const allNumbers = useMemo(() => sets.map((set) => set.setting), [sets])
  const request = useMemo(() => requestOf(requestParts, shown?.entryId), [requestParts, shown?.entryId])
  const { shown: system } = useUnitSystem()
  const details = detailsOf(member, system)
  const onSaved = () => {
    setModal(null)
    router.refresh()
  }
  const more = moreOf({ member, maySetUp, mayEdit, mayMerge, seesFile }, Boolean(shown), types.length > 0, setModal)
  return (
    <article>
      <header className={styles.head}>
        <div className={styles.who}>
          <h1>{member.name}</h1>
          {details && <p className={styles.details}>{details}</p>}
          {notes && <RiderNav memberId={member.id} here="Numbers" />}
        </div>
        <Dropdown trigger={['click']} menu={{ items: more }}>
          <Button className="no-print" size="large" icon={<EllipsisOutlined />}>
            More
          </Button>
        </Dropdown>
        {maySetUp && (
          <Button className="no-print" size="large" onClick={() => setChoosing('told')}>
            Type in numbers
          </Button>
        )}
        {maySetUp && (
          <Button className="no-print" type="primary" size="large" onClick={() => setChoosing('setUp')}>
            {shown ? 'New set-up' : 'Set up now'}
          </Button>
        )}
      </header>
      {stop && (
        <div className={styles.stop}>
          <StopBanner {...stop} />
        </div>
      )}
      {open.map((o) => (
        <p key={o.id} className={styles.open}>
          <span>A set-up was left open at {o.text}.</span>
          <Link href={`/set-up/${o.id}`}>Go on with it</Link>
        </p>
      ))}
      {changed && <p className={styles.open}>{changed}</p>}
      {shown ? (
        <NumbersCard
          sets={sets}
          shown={shown}
          show={setChosen}
          confirm={mayConfirm && <ConfirmNumbers key={shown.entryId} entryId={shown.entryId} />}
          moves={maySetUp && shown.bikeId && <MoveHere key={shown.bikeId} memberId={member.id} bikeId={shown.bikeId} />}
          chance={
            request &&
            requestParts?.seatHeight && (
              <KneeChance key={shown.entryId} request={request} at={requestParts.seatHeight} />
            )
          }
        />
      ) : (
        <p className={styles.empty} data-empty>
          No numbers yet. A set-up takes about six minutes and can stop anywhere; nothing is lost.
        </p>
      )}
      {shown && types.length > 1 && (
        <OtherBikes
          key={shown.entryId}
          from={shown}
          saved={sets.filter(({ purposeOf }) => purposeOf === shown.purposeOf)}
          request={request}
          types={types}
          maySetUp={maySetUp}
        />
      )}
      {plans && <Plans memberId={member.id} plans={plans} today={today} />}
      {limits && <Limits memberId={member.id} limits={limits} today={today} />}
      {consent && <ConsentPart memberId={member.id} consent={consent} />}
      {programmes && (
        <Programmes
          memberId={member.id}
          programmes={programmes}
          asks={consent?.given === null ? consent.wording : null}
        />
      )}
      {notes && <SeenInClass notes={notes} trained={trainedSigns(programmes)} />}
      {own && <OwnPage memberId={member.id} link={own.link} messages={own.messages} mayLink={maySetUp} />}
      {timeline.entries.length > 0 && (
        <TimeLine
          memberId={member.id}
          entries={timeline.entries}
          more={timeline.more}
          holding={sets.map(({ entryId }) => entryId)}
          maySetUp={maySetUp}
        />
      )}
      <p className={styles.caution}>{CAUTION}</p>
      {modal === 'tape' && (
        <FromTape memberId={member.id} types={types} close={() => setModal(null)} onSaved={onSaved} />
      )}
      {modal === 'changed' && (
        <Changed memberId={member.id} numbers={allNumbers} close={() => setModal(null)} onSaved={onSaved} />
      )}
      {modal === 'drawings' && shown && (
        <Drawings name={member.name} numbers={shown.setting} request={request} close={() => setModal(null)} />
      )}
      {modal === 'edit' && <EditMember member={member} seesBody={notes !== null} close={() => setModal(null)} />}
      {modal === 'merge' && <MergeMember member={member} close={() => setModal(null)} />}
      <ChooseBike memberId={member.id} bikes={bikes} seat={seat} choosing={choosing} close={() => setChoosing(null)} />
    </article>
  )
}

/** The signs that exercises run for. */
const trainedSigns = (programmes: ProgrammesText | null): readonly string[] =>
  programmes?.given.flatMap(({ sign, state }) => (sign && state === 'running' ? sign : [])) ?? []

type Modal = 'tape' | 'changed' | 'drawings' | 'edit' | 'merge'
type May = Pick<RiderViewProps, 'member' | 'maySetUp' | 'mayEdit' | 'mayMerge' | 'seesFile'>

/** What else can be done with a rider, as far as the role allows it. */
function moreOf(
  { member, maySetUp, mayEdit, mayMerge, seesFile }: May,
  hasNumbers: boolean,
  hasTypes: boolean,
  open: (modal: Modal) => void,
): MenuProps['items'] {
  const item = (isShown: boolean, key: Modal, label: string) =>
    isShown ? [{ key, label, onClick: () => open(key) }] : []
  const link = (isShown: boolean, key: string, label: ReactNode) => (isShown ? [{ key, label }] : [])
  const card = (
    <a href={`/api/cards/rider/${member.id}`} target="_blank" rel="noreferrer">
      Card for the wallet, PDF
    </a>
  )
  return [
    ...item(maySetUp && hasNumbers, 'changed', 'Shoes or saddle changed'),
    ...item(maySetUp && hasTypes, 'tape', 'From own bike'),
    ...link(hasNumbers, 'card', card),
    ...link(maySetUp && hasNumbers, 'show', <Link href={`/riders/${member.id}/show`}>Show it: wrong and right</Link>),
    ...item(hasNumbers, 'drawings', 'Drawings, SVG'),
    ...item(mayEdit, 'edit', 'Edit name and details'),
    ...item(mayMerge, 'merge', 'Merge with another member'),
    ...link(seesFile, 'file', <Link href={`/riders/${member.id}/data`}>Their data: take or erase</Link>),
  ]
}

/** Number, height and e-mail, as far as the role sees them. */
const detailsOf = ({ number, statureMm, email }: MemberRecord, shown: UnitSystem): string =>
  [number && `No. ${number}`, statureMm && formatBodyLength(statureMm, shown), email].filter(Boolean).join(', ')

/** The request without what is only the page's, where it is about this entry. */
function requestOf(parts: RiderViewProps['request'], entryId: string | undefined): RecommendRequest | null {
  if (!parts || parts.entryId !== entryId) return null
  const { bikeType, bike, school, evidence } = parts
  return { bikeType, bike, school, evidence }
}

/** Confirms a trainee's numbers. */
function ConfirmNumbers({ entryId }: Readonly<{ entryId: string }>) {
  const router = useRouter()
  const { act, busy } = useAction()
  return (
    <Button
      type="primary"
      size="large"
      className="no-print"
      loading={busy}
      onClick={async () => {
        if (await act(() => command('register.confirmNumbers', { entryId }))) router.refresh()
      }}
    >
      Looked over, they are right
    </Button>
  )
}

/** Opens the arrows that move a mark. */
function MoveHere({ memberId, bikeId }: Readonly<{ memberId: string; bikeId: string }>) {
  const [isOpen, setOpen] = useState(false)
  if (isOpen) return <RiderMoves memberId={memberId} bikeId={bikeId} />
  return (
    <Button size="large" onClick={() => setOpen(true)}>
      Move a mark
    </Button>
  )
}

/** How sure the saved seat is: worked out on this device, after the page is there. */
function KneeChance({ request, at }: { request: RecommendRequest; at: Label }) {
  const { answer } = useRecommendation(request)
  const found = answer?.chances.seatHeight?.find((c) => c.label === at)
  return found ? <>; the knee is right here for {formatNaturalFrequency(found.chance)} riders like this one</> : null
}
