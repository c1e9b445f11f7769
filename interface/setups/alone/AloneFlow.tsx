'use client'
import dynamic from 'next/dynamic'
import { useEffect, type ReactNode } from 'react'
import type { Bike, BikeType } from '@/core/bikes/bike/bike'
import type { School } from '@/core/base/school/school'
import type { AloneScale } from './aloneScale'
import styles from './alone.module.css'
import { HealthFirst } from './HealthFirst'
import { useAloneRows } from './useAloneRows'

export type AloneFlowProps = Readonly<{
  code: string
  bikeType: BikeType
  bike: Bike
  school: Partial<School>
  /** The studio's words to a referred rider; null for the product's. */
  referral: string | null
  scales: readonly AloneScale[]
  /** The cards of getting on and off, made on the server. */
  gettingOn: ReactNode
}>

/** Fetched behind the first questions, which a phone shows without them. */
const loadCard = () => import('./AloneStepCard').then(({ AloneStepCard: view }) => view)
const loadEnd = () => import('./AloneEnd').then(({ AloneEnd: view }) => view)
const AloneStepCard = dynamic(loadCard)
const AloneEnd = dynamic(loadEnd)
/** Drawn once the arithmetic is there, which brings the body to draw. */
const ShowIt = dynamic(() => import('../show/ShowIt').then(({ ShowIt: view }) => view))

/** A rider alone at a machine: health first, then one step at a time to four numbers. */
export function AloneFlow({ code, bikeType, bike, school, referral, scales, gettingOn }: AloneFlowProps) {
  const { rows, answer, before, failed, left, again, add, undo, restart, leave } = useAloneRows(code, {
    bikeType,
    bike,
    school,
  })
  useEffect(() => void Promise.allSettled([loadCard(), loadEnd()]), [])
  if (!rows) return <p className={styles.wait} aria-busy="true" />
  if (rows.length === 0) return <HealthFirst referral={referral} hasSides={hasSides(bikeType)} onRider={add} />
  const shown = answer ?? before
  const step = shown?.step
  const picture = shown?.belief && step && 'marks' in step && (
    <ShowIt
      bikeType={bikeType}
      bike={bike}
      marks={'yours' in step ? step.yours : step.marks}
      rider={shown.belief.rider}
      only={['height']}
      lit={step.kind === 'set' && step.why === 'low' ? 'less' : 'yours'}
    />
  )
  return (
    <section className={styles.card} aria-label="Set it up" aria-busy={!answer}>
      {failed && (
        <p className={styles.stop} role="alert">
          The arithmetic did not load; the network may be slow. What you answered is kept.{' '}
          <button type="button" className={styles.quietButton} onClick={again}>
            Try again
          </button>
        </p>
      )}
      {!step && !failed && <p className={styles.wait}>One moment …</p>}
      {step?.kind === 'end' && answer ? (
        <AloneEnd code={code} step={step} scales={scales} rows={rows} left={left} onLeft={leave} picture={picture} />
      ) : (
        step &&
        step.kind !== 'end' &&
        step.kind !== 'talk' && (
          <AloneStepCard
            key={rows.length}
            step={step}
            rows={rows}
            scales={scales}
            isWaiting={!answer}
            onRows={add}
            picture={step.kind === 'set' && step.why !== 'better' ? picture : null}
            gettingOn={step.kind === 'set' && step.why === 'low' ? gettingOn : null}
          />
        )
      )}
      <nav className={styles.ways} aria-label="Steps">
        {rows.length > 0 && (
          <button type="button" className={styles.quietButton} onClick={undo}>
            One back
          </button>
        )}
        {rows.length > 0 && (
          <button type="button" className={styles.quietButton} onClick={restart}>
            Begin anew
          </button>
        )}
      </nav>
    </section>
  )
}

/** Whether strap and cleat put the shoe at different heights on this type. */
function hasSides({ pedalSurfacesMm, pedalSurfaceMm }: BikeType): boolean {
  const { cage = pedalSurfaceMm, cleat = pedalSurfaceMm } = pedalSurfacesMm ?? {}
  return cage !== cleat
}
