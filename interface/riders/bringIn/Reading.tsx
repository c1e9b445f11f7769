'use client'
import { Button, Checkbox } from 'antd'
import '@/interface/kit/antd/checkbox.generated.css'
import { useRouter } from 'next/navigation'
import { useState } from 'react'
import { formatMarks } from '@/core/messages/words/labels'
import { formatDate } from '@/core/messages/words/dates'
import { formatLimit } from '@/core/messages/riders/limits'
import { PURPOSE_NAME } from '@/core/messages/setups/register'
import type { ReadRiderFile, SetProposal } from '@/server/files/riderFile/read'
import { command } from '../../commands/command'
import { useAction } from '../../commands/useAction'
import { partId, useIdempotencyKey } from '../../commands/useIdempotencyKey'
import { FileStanding } from './FileStanding'
import { WhoIsIt, type Who } from './WhoIsIt'
import styles from './bringIn.module.css'

type ReadingProps = Readonly<{
  text: string
  file: ReadRiderFile
  mayKnowStudios: boolean
  timeZone: string
  today: string
  /** Reads the file again, against a member or nobody. */
  look: (memberId: string | null) => Promise<void>
  another: () => void
}>

/** Parts of the write: the new member first, then numbers, then limits. */
const [FIRST_SET, FIRST_LIMIT] = [1, 1000]
const keyOf = ({ setId, lineId }: SetProposal): string => `${setId} ${lineId}`

/** What a file holds, each part to be taken or left. */
export function Reading({ text, file, mayKnowStudios, timeZone, today, look, another }: ReadingProps) {
  const router = useRouter()
  const { act, busy } = useAction()
  const { idFor } = useIdempotencyKey()
  const [who, setWho] = useState<Who>(null)
  // Numbers that are here already are not replaced unless somebody says so.
  const [changed, setChanged] = useState<Readonly<Record<string, boolean>>>({})
  const [body, setBody] = useState(true)
  const [wish, setWish] = useState(false)
  const [limits, setLimits] = useState<readonly number[]>([])
  const isTaken = (one: SetProposal) => !one.isHere && (changed[keyOf(one)] ?? one.current === null)
  const chosen = file.proposals.filter(isTaken)
  const besides = [file.hasBody && body, file.wish !== null && wish, limits.length > 0].filter(Boolean).length
  async function take() {
    if (!who) return
    const id = idFor([text, who, chosen.map(keyOf), body, wish, limits])
    const input = {
      text,
      memberId: 'id' in who ? who.id : partId(id, 0),
      newName: 'id' in who ? null : who.name,
      sets: chosen.map((one, i) => ({ id: partId(id, FIRST_SET + i), setId: one.setId, lineId: one.lineId })),
      body: file.hasBody && body,
      wish: file.wish !== null && wish,
      limits: limits.map((index) => ({ id: partId(id, FIRST_LIMIT + index), index })),
    }
    const answer = await act(() => command('riderFiles.takeRiderFile', input, id))
    if (answer) router.push(`/riders/${answer.memberId}`)
  }
  return (
    <>
      <FileStanding file={file} mayKnowStudios={mayKnowStudios} timeZone={timeZone} known={() => look(idOf(who))} />
      <WhoIsIt
        file={file}
        who={who}
        choose={(next) => {
          setWho(next)
          void look(idOf(next))
        }}
      />
      <section className={styles.part} aria-label="Numbers">
        <h2>Numbers here</h2>
        {file.proposals.length === 0 && <p className={styles.quiet}>The file holds no numbers that fit a type here.</p>}
        {file.proposals.map((one) => (
          <Proposal
            key={keyOf(one)}
            proposal={one}
            isTaken={isTaken(one)}
            take={(isOn) => setChanged((before) => ({ ...before, [keyOf(one)]: isOn }))}
            timeZone={timeZone}
          />
        ))}
      </section>
      {(file.hasBody || file.wish !== null || file.limits.length > 0) && (
        <section className={styles.part} aria-label="Besides">
          <h2>Besides</h2>
          <p className={styles.quiet}>Ask the rider for each: it is theirs to give, here and now.</p>
          {file.hasBody && (
            <Checkbox checked={body} onChange={(event) => setBody(event.target.checked)}>
              What is believed of their body, as a beginning for the next set-up; it counts less with its age
            </Checkbox>
          )}
          {file.wish !== null && (
            <Checkbox checked={wish} onChange={(event) => setWish(event.target.checked)}>
              They like to sit {file.wish}
            </Checkbox>
          )}
          {file.limits.map((limit, index) => (
            <Checkbox
              key={index}
              checked={limits.includes(index)}
              onChange={({ target }) =>
                setLimits((before) => (target.checked ? [...before, index] : before.filter((one) => one !== index)))
              }
            >
              {formatLimit(limit, today)}
            </Checkbox>
          ))}
        </section>
      )}
      <div className={styles.ways}>
        <Button
          type="primary"
          size="large"
          loading={busy}
          disabled={!who || chosen.length + besides === 0}
          onClick={take}
        >
          Take it over
        </Button>
        <Button size="large" type="text" onClick={another}>
          Another file
        </Button>
        {!who && <span className={styles.quiet}>Say first who it is.</span>}
      </div>
    </>
  )
}

const idOf = (who: Who): string | null => (who && 'id' in who ? who.id : null)

type ProposalProps = Readonly<{
  proposal: SetProposal
  isTaken: boolean
  take: (isOn: boolean) => void
  timeZone: string
}>

/** Numbers on one type, with what they come from and what stands there now. */
function Proposal({ proposal, isTaken, take, timeZone }: ProposalProps) {
  const { type, purpose, marks, fromType, measuredAt, sentence, current, isHere, certainty } = proposal
  const name = purpose === 'usual' ? type.name : `${type.name}, ${PURPOSE_NAME[purpose].toLowerCase()}`
  const from = certainty === 'told' ? 'told' : `from ${fromType}, ${formatDate(new Date(measuredAt), timeZone)}`
  return (
    <div className={styles.proposal}>
      <Checkbox checked={isTaken} disabled={isHere} onChange={({ target }) => take(target.checked)}>
        <b>{name}</b>
      </Checkbox>
      <span className={styles.marks}>{formatMarks(type, marks)}</span>
      <span className={styles.quiet}>
        {isHere ? 'Here already' : current ? `Replaces ${formatMarks(type, current)}` : from}
      </span>
      <p className={styles.quiet}>{sentence}</p>
    </div>
  )
}
