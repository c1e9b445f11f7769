'use client'
import { useMemo, useState } from 'react'
import { axesOf, type Bike, type BikeType } from '@/core/bike/bike'
import type { Marks } from '@/core/conventions'
import { formatLabel } from '@/core/messages/labels'
import { AXIS_TITLE } from '@/core/messages/phrases'
import type { TranslateResponse } from '@/core/operations/translate'
import type { RecommendRequest } from '@/core/recommend/request'
import { BikeOverlay } from '../drawing/BikeOverlay'
import { useUnitSystem } from '../shared/Providers'
import rider from './rider.module.css'
import styles from './otherBikes.module.css'
import { useTranslations, type Numbers } from './useTranslations'

type Props = Readonly<{
  from: Readonly<{ bikeType: BikeType; bike: Bike; marks: Marks }>
  /** What the numbers rest on, where this person may see it. */
  request: RecommendRequest | null
  types: readonly BikeType[]
}>

/** The same numbers on the studio's other types: what to set, what is left over, and why, drawn to scale. */
export function OtherBikes({ from, request, types: all }: Props) {
  const { shown } = useUnitSystem()
  const types = useMemo(() => all.filter(({ name }) => name !== from.bikeType.name), [all, from])
  const numbers = useMemo<Numbers>(
    () => ({
      from,
      lengths: shown,
      ...(request && { school: request.school, evidence: request.evidence }),
    }),
    [from, request, shown],
  )
  const found = useTranslations(numbers, types)
  const [open, setOpen] = useState<string | null>(null)
  return (
    <section className={`${rider.part} no-print`} aria-label="On other bikes">
      <h2>On other bikes</h2>
      <ul className={styles.types}>
        {types.map((bikeType) => {
          const answer = found[bikeType.name]
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
                      <small>{AXIS_TITLE[axis]}</small>
                      <strong>
                        {answer?.marks[axis] === undefined ? '…' : formatLabel(bikeType, axis, answer.marks[axis])}
                      </strong>
                    </span>
                  ))}
                </span>
                <span>{answer ? leftOver(answer) : 'Working it out …'}</span>
              </button>
              {shows && (
                <div className={styles.why}>
                  <div className={styles.drawing}>
                    <BikeOverlay
                      before={from}
                      there={{ bikeType, marks: answer.marks }}
                      wanted={answer.contact.wanted}
                      reached={answer.contact.there}
                    />
                  </div>
                  <ul>
                    {answer.because.map((line) => (
                      <li key={line}>{line}</li>
                    ))}
                    <li className={styles.quiet}>
                      Translated, not looked at: glance at the knee before the first ride.
                    </li>
                  </ul>
                </div>
              )}
            </li>
          )
        })}
      </ul>
    </section>
  )
}

/** What follows the numbers in the sentence, since they stand beside it in large. */
const leftOver = ({ sentence }: TranslateResponse): string => {
  const rest = sentence.slice(sentence.indexOf(':') + 1)
  const at = rest.search(/[:,]/)
  return at < 0 ? '' : rest.slice(at + 1).trim()
}
