'use client'
import { Button } from 'antd'
import { useRouter } from 'next/navigation'
import { useMemo, useState } from 'react'
import { axesOf, type Bike, type BikeType } from '@/core/bikes/bike/bike'
import { movedAxes, type Marks } from '@/core/base/conventions'
import { formatLabel, formatMarks } from '@/core/messages/words/labels'
import { axisTitle } from '@/core/messages/words/phrases'
import { CERTAINTY_WORD } from '@/core/messages/setups/register'
import type { Certainty } from '@/core/setups/register/entry'
import type { TranslateResponse } from '@/core/operations/requests/translate'
import type { RecommendRequest } from '@/core/setups/recommend/request/request'
import { BikeOverlay } from '../../kit/drawing/BikeOverlay'
import { useUnitSystem } from '../../kit/theme/DevicePreferences'
import { useAction } from '../../commands/useAction'
import { useIdempotencyKey } from '../../commands/useIdempotencyKey'
import { command } from '../../commands/command'
import rider from '../rider/rider.module.css'
import styles from './otherBikes.module.css'
import { TapeVerify } from './TapeVerify'
import { useTranslations, type Numbers } from './useTranslations'

/** A type of the studio, in the version in force, with its machines. */
export type StudioType = Readonly<{
  lineId: string
  bikeType: BikeType
  machines: readonly Readonly<{ id: string; number: number; machineCalibration: Bike }>[]
}>

type Props = Readonly<{
  from: Readonly<{ entryId: string; setting: Readonly<{ bikeType: BikeType; bike: Bike; marks: Marks }> }>
  /** Sets of the same purpose, on any type. */
  saved: readonly Readonly<{
    lineId: string
    certainty: Certainty
    setting: Readonly<{ bikeType: BikeType; marks: Marks }>
  }>[]
  /** What the numbers rest on, where this person may see it. */
  request: RecommendRequest | null
  types: readonly StudioType[]
  maySetUp: boolean
}>

/** The same numbers on the studio's other types: what to set, what is left over, and why, drawn to scale. */
export function OtherBikes({ from: { entryId, setting: from }, saved, request, types: all, maySetUp }: Props) {
  const { shown } = useUnitSystem()
  const router = useRouter()
  const { act, busy } = useAction()
  const { idFor, forget } = useIdempotencyKey()
  const studioTypes = useMemo(() => all.filter(({ bikeType }) => bikeType.name !== from.bikeType.name), [all, from])
  const types = useMemo(() => studioTypes.map(({ bikeType }) => bikeType), [studioTypes])
  const numbers = useMemo<Numbers>(
    () => ({
      // Only the core's request: the page's own fields stay here.
      from: { bikeType: from.bikeType, bike: from.bike, marks: from.marks },
      lengths: shown,
      ...(request && { school: request.school, evidence: request.evidence }),
    }),
    [from, request, shown],
  )
  const found = useTranslations(numbers, types)
  const [open, setOpen] = useState<string | null>(null)
  async function save(lineId: string) {
    if (!(await act(() => command('register.saveForType', { entryId, lineId }, idFor([entryId, lineId]))))) return
    // Stored: the same again, after other numbers meanwhile, is another write.
    forget()
    router.refresh()
  }
  return (
    <section className={`${rider.part} no-print`} aria-label="On other bikes">
      <h2>On other bikes</h2>
      <ul className={styles.types}>
        {studioTypes.map(({ lineId, bikeType, machines }) => {
          const answer = found[bikeType.name]
          const own = saved.find((set) => set.lineId === lineId)
          const differs = answer && own && movedAxes(own.setting.marks, answer.marks).length > 0
          const shows = open === bikeType.name && answer
          return (
            <li key={bikeType.name}>
              <button
                type="button"
                className={styles.row}
                aria-expanded={open === bikeType.name}
                onClick={() => setOpen(open === bikeType.name ? null : bikeType.name)}
              >
                <b>{bikeType.name}</b>
                <span className={styles.numbers}>
                  {axesOf(bikeType).map((axis) => (
                    <span key={axis}>
                      <small>{axisTitle(bikeType, axis)}</small>
                      <strong>
                        {answer?.marks[axis] === undefined ? '…' : formatLabel(bikeType, axis, answer.marks[axis])}
                      </strong>
                    </span>
                  ))}
                </span>
                <span>
                  {answer ? leftOver(answer) : 'Working it out …'}
                  {own && (
                    <em>
                      {differs ? `Kept there: ${formatMarks(bikeType, own.setting.marks)}` : 'Kept there as well'},{' '}
                      {CERTAINTY_WORD[own.certainty]}
                    </em>
                  )}
                </span>
              </button>
              {shows && (
                <div className={styles.why}>
                  <div className={styles.drawing}>
                    <BikeOverlay
                      before={from}
                      there={{ bikeType, marks: answer.marks }}
                      target={answer.contact.wanted}
                      reached={answer.contact.there}
                    />
                  </div>
                  <div>
                    <ul>
                      {answer.because.map((line) => (
                        <li key={line}>{line}</li>
                      ))}
                      <li className={styles.quiet}>
                        Translated, not looked at: glance at the knee before the first ride.
                      </li>
                    </ul>
                    {maySetUp && (!own || (differs && !wasLookedAt(own.certainty))) && (
                      <Button size="large" loading={busy} onClick={() => save(lineId)}>
                        {own ? 'Keep these instead' : `Keep for ${bikeType.name}`}
                      </Button>
                    )}
                    {maySetUp && machines.length > 0 && (
                      <TapeVerify bikeType={bikeType} machines={machines} marks={answer.marks} />
                    )}
                  </div>
                </div>
              )}
            </li>
          )
        })}
      </ul>
    </section>
  )
}

/** Numbers that were looked at on the bike give way to a new set-up alone. */
const wasLookedAt = (certainty: Certainty): boolean => certainty === 'checked' || certainty === 'measured'

/** What follows the numbers in the sentence, since they are shown next to it in large. */
const leftOver = ({ sentence }: TranslateResponse): string => {
  const rest = sentence.slice(sentence.indexOf(':') + 1)
  const at = rest.search(/[:,]/)
  return at < 0 ? '' : rest.slice(at + 1).trim()
}
