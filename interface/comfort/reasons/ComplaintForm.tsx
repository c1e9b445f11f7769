'use client'
import { Button, Input } from 'antd'
import { useState } from 'react'
import { COMPLAINTS, type ComplaintName } from '@/core/comfort/model/causeTable'
import { REGION_OF, WITHOUT_SIDE } from '@/core/comfort/model/complaint'
import { NEVER_OF_THE_BIKE } from '@/core/comfort/model/redFlags'
import { HEALTH, MOMENTS, QUALITIES } from '@/core/comfort/model/request'
import { MAX_LINE_LENGTH } from '@/core/riders/memberPage/message'
import { FELT_NAME, OWN_FELT_NAME, HEALTH_NAME, MOMENT_NAME, QUALITY_NAME } from '@/core/messages/comfort/comfort'
import type { Region } from '@/core/classes/watch/signs'
import { BodyFigure } from '../../kit/drawing/BodyFigure'
import { ScoreRow } from '../../kit/ScoreRow'
import styles from './complaintForm.module.css'
import {
  flagsOfInput,
  isStop,
  EMPTY_COMPLAINT,
  URGENT_STRENGTH,
  type ComplaintInput,
} from '@/core/comfort/complaintInput'

/** They exclude all others. */
const URGENT: readonly ComplaintName[] = NEVER_OF_THE_BIKE
const ORDINARY = COMPLAINTS.filter((what) => !URGENT.includes(what))

type Props = Readonly<{
  /** What is filled in already, as from a note of the floor. */
  begun?: Partial<ComplaintInput>
  referral: string
  /** Who reads the questions: the rider, or the instructor. */
  reporter: 'rider' | 'instructor'
  busy: boolean
  send: (complaint: ComplaintInput) => void
  submit: string
}>

/** Where, how strong, which side, when, whether it lasts, and what would make it no matter for a bike. */
export function ComplaintForm({ begun = {}, referral, reporter, busy, send, submit }: Props) {
  const [what, setWhat] = useState<ComplaintName | null>(begun.what ?? null)
  /** Tapped on the figure: only what is felt there is to choose from, until it is tapped once more. */
  const [region, setRegion] = useState<Region | null>(null)
  const [strength, setStrength] = useState<number | null>(begun.strength ?? null)
  const [complaint, setComplaint] = useState({ ...EMPTY_COMPLAINT, ...begun })
  const update = (more: Partial<typeof complaint>) => setComplaint((all) => ({ ...all, ...more }))
  const sided = what !== null && !WITHOUT_SIDE.includes(what)
  const { side, moment, lasts, quality, health, line } = complaint
  const flags = what === null ? [] : flagsOfInput({ ...complaint, what, strength })
  const you = reporter === 'rider'
  const nameOf = you ? OWN_FELT_NAME : FELT_NAME
  // The side of a lasting pain decides: the form requires it.
  const needsSide = sided && flags.includes('sideUnknown')
  // One tap records what never is a matter for a bike.
  const pickUrgent = (one: ComplaintName) => {
    setWhat(one)
    send({ ...complaint, what: one, strength: strength ?? URGENT_STRENGTH, side: null })
  }
  const missing =
    what === null
      ? 'First tap where it is'
      : strength === null
        ? 'Tap how strong it is, 0 to 10'
        : needsSide
          ? 'Tap which side it is on'
          : null
  return (
    <div className={styles.form}>
      {isStop(flags) && (
        <p className={styles.stop} role="alert">
          {referral}
        </p>
      )}
      <Picks
        title={you ? 'Stop riding if it is one of these. One tap tells your instructor' : 'Stops the ride'}
        className={styles.places}
        options={URGENT.map((one) => [one, nameOf[one]])}
        chosen={[what]}
        pick={pickUrgent}
      />
      <div className={styles.where}>
        <div className={styles.figure}>
          <BodyFigure
            lit={region ?? (what && REGION_OF[what])}
            side={sided ? side : null}
            onPick={(one) => setRegion(one === region ? null : one)}
          />
        </div>
        <Picks
          title={you ? 'Where do you feel something?' : 'Where?'}
          className={styles.places}
          options={ORDINARY.filter((one) => region === null || REGION_OF[one] === region).map((one) => [
            one,
            nameOf[one],
          ])}
          chosen={[what]}
          pick={setWhat}
        />
      </div>
      {what !== null && (
        <>
          <div className={styles.picks}>
            <p>How strong? 0 nothing, 10 as bad as can be</p>
            <ScoreRow label="How strong? 0 nothing, 10 as bad as can be" given={strength} give={setStrength} />
          </div>
          <div className={styles.pair}>
            {sided && (
              <Picks
                title={you ? 'Which side? Left is your left' : 'Which side? The rider’s left and right'}
                options={[
                  ['left', 'Left'],
                  ['both', 'Both'],
                  ['right', 'Right'],
                ]}
                chosen={[side]}
                pick={(one) => update({ side: one === side ? null : one })}
              />
            )}
            <Picks
              title="Gone after the ride?"
              options={[
                [false, 'Gone'],
                [true, 'It lasts'],
              ]}
              chosen={[lasts]}
              pick={(one) => update({ lasts: one === lasts ? null : one })}
            />
          </div>
          {needsSide && (
            <p className={styles.stop} role="alert">
              {you
                ? 'Tap which side it is on, left, right or both: it decides what comes next.'
                : 'It lasts: ask which side it is on before anything else.'}
            </p>
          )}
          <Picks
            title="When does it come?"
            options={MOMENTS.map((one) => [one, MOMENT_NAME[one]])}
            chosen={[moment]}
            pick={(one) => update({ moment: one === moment ? null : one })}
          />
          <Picks
            title="Is any of this so?"
            options={QUALITIES.map((one) => [one, QUALITY_NAME[one]])}
            chosen={quality}
            pick={(one) => update({ quality: toggled(quality, one) })}
          />
          <Picks
            title={you ? 'Are you' : 'Is the rider'}
            options={HEALTH.map((one) => [one, HEALTH_NAME[one]])}
            chosen={health}
            pick={(one) => update({ health: toggled(health, one) })}
          />
          <Input
            size="large"
            maxLength={MAX_LINE_LENGTH}
            placeholder="In one line, if you like"
            aria-label="In one line"
            value={line}
            onChange={(event) => update({ line: event.target.value })}
          />
        </>
      )}
      <Button
        type="primary"
        size="large"
        block
        disabled={missing !== null}
        loading={busy}
        onClick={() =>
          what !== null && strength !== null && send({ ...complaint, what, strength, side: sided ? side : null })
        }
      >
        {missing ?? submit}
      </Button>
    </div>
  )
}

const toggled = <T,>(all: readonly T[], one: T): T[] =>
  all.includes(one) ? all.filter((other) => other !== one) : [...all, one]

function Picks<V extends string | number | boolean>({
  title,
  className = styles.row,
  options,
  chosen,
  pick,
}: {
  title: string
  className?: string
  options: readonly (readonly [V, string])[]
  chosen: readonly (V | null)[]
  pick: (value: V) => void
}) {
  return (
    <div className={styles.picks}>
      <p>{title}</p>
      <div className={className} role="group" aria-label={title}>
        {options.map(([value, name]) => (
          <button key={String(value)} type="button" aria-pressed={chosen.includes(value)} onClick={() => pick(value)}>
            {name}
          </button>
        ))}
      </div>
    </div>
  )
}
