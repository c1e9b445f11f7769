'use client'
import { Button, Progress } from 'antd'
import { proxy, wrap } from 'comlink'
import { useEffect, useMemo, useState } from 'react'
import { axesOf, type BikeType } from '@/core/bike/bike'
import type { AxisName } from '@/core/conventions'
import {
  fleetAccommodation,
  accommodationLimits,
  STATURES_MM,
  type AccommodationAtStature,
} from '@/core/fleet/accommodation'
import type { School } from '@/core/school/school'
import { formatBodyLength } from '@/core/units/length'
import { formatLimit } from '@/core/messages/accommodation'
import { AXIS_TITLE } from '@/core/messages/phrases'
import { useUnitSystem } from '../shared/DevicePreferences'
import { AccommodationChart, DASHES, FLEET, INKS } from './AccommodationChart'
import parts from './parts.module.css'
import styles from './accommodationView.module.css'
import type { AccommodationWorker } from './accommodation.worker'

type Props = Readonly<{
  types: readonly Readonly<{ lineId: string; bikeType: BikeType; count: number }>[]
  school: School
}>
/** The answers for the first types, and the share of the work that is done. */
type AccommodationProgress = Readonly<{ fits: readonly (readonly AccommodationAtStature[])[]; done: number }>

/** For every stature the share of riders who find their marks, by type, by axis and for the whole fleet. */
export function AccommodationView({ types, school }: Props) {
  const { shown } = useUnitSystem()
  const { progress, isDone, fits } = useAccommodation(types, school)
  const [axis, setAxis] = useState<AxisName | 'all'>('all')

  const share = (fit: AccommodationAtStature) => (axis === 'all' ? fit.all : (fit.axes[axis] ?? 1))
  const rows = useMemo(
    () =>
      STATURES_MM.map((statureMm, i) => ({
        statureMm,
        ...(axis === 'all' &&
          isDone &&
          types.length > 1 && { [FLEET]: Math.round(100 * fleetAccommodation(fits.map((of) => of[i]))) }),
        ...Object.fromEntries(
          types.map((t, k) => [
            t.bikeType.name,
            progress.fits[k] ? Math.round(100 * share(progress.fits[k]![i])) : null,
          ]),
        ),
      })),
    [types, progress.fits, axis], // eslint-disable-line react-hooks/exhaustive-deps
  )
  const fleet = isDone ? STATURES_MM.map((_, i) => fleetAccommodation(fits.map((of) => of[i]))) : []
  const limits = fits.flatMap((of, k) =>
    accommodationLimits(of).map((limit) => formatLimit(types[k].bikeType.name, limit, shown)),
  )
  const axes = [...new Set(types.flatMap((t) => axesOf(t.bikeType)))]
  return (
    <>
      <div className={parts.head}>
        <h1>Who fits</h1>
      </div>
      <p className={parts.lead}>
        How many riders of each height find a mark that suits them. From the model’s own spreads of bodies: a real rider
        may differ.
      </p>
      <div className={styles.says} aria-live="polite">
        {isDone ? (
          <>
            <p className={styles.fleet}>{formatFleet(fleet, shown)}</p>
            <ul className={styles.limits} aria-label="Limits">
              {limits.length === 0 ? (
                <li>Nearly everyone from 140 to 205 cm finds a mark on every type.</li>
              ) : (
                limits.map((line) => <li key={line}>{line}</li>)
              )}
            </ul>
          </>
        ) : (
          <Progress percent={Math.round(100 * progress.done)} aria-label="Working it out" strokeColor="var(--act)" />
        )}
      </div>
      <div className={parts.picks} role="group" aria-label="Looked at">
        {(['all', ...axes] as const).map((name) => (
          <Button
            key={name}
            type={axis === name ? 'primary' : 'default'}
            aria-pressed={axis === name}
            onClick={() => setAxis(name)}
          >
            {name === 'all' ? 'Every axis' : AXIS_TITLE[name]}
          </Button>
        ))}
      </div>
      <div className={styles.chart}>
        <AccommodationChart rows={rows} types={types} shown={shown} />
      </div>
      <ul className={parts.picks} aria-label="Types">
        {types.length > 1 && axis === 'all' && (
          <li className={parts.line}>
            <svg width="44" height="10" aria-hidden="true">
              <line x1="0" x2="44" y1="5" y2="5" stroke="var(--bar)" strokeWidth="9" />
            </svg>
            any of the fleet
          </li>
        )}
        {types.map(({ lineId, bikeType, count }, k) => (
          <li key={lineId} className={parts.line}>
            <svg width="44" height="10" aria-hidden="true">
              <line
                x1="0"
                x2="44"
                y1="5"
                y2="5"
                stroke={INKS[k % INKS.length]}
                strokeWidth="4"
                strokeDasharray={DASHES[k % DASHES.length]}
              />
            </svg>
            {bikeType.name}, {count}
          </li>
        ))}
      </ul>
    </>
  )
}

/** Computes the types one after the other in one worker: a second one costs more to start than it saves. */
function useAccommodation(types: Props['types'], school: School) {
  const [progress, setProgress] = useState<AccommodationProgress>({ fits: [], done: 0 })
  useEffect(() => {
    const worker = new Worker(new URL('./accommodation.worker.ts', import.meta.url), { type: 'module' })
    const { accommodation } = wrap<AccommodationWorker>(worker)
    let isGone = false
    const show = (k: number, share: number, found: readonly AccommodationAtStature[] | null) => {
      // While nothing new is found the same array stays: the chart is drawn once a type, not once a step.
      if (!isGone)
        setProgress(({ fits }) => ({ fits: found ? [...fits, found] : fits, done: (k + share) / types.length }))
    }
    const computeAll = async () => {
      for (const [k, { bikeType }] of types.entries())
        show(
          k,
          1,
          await accommodation(
            { bikeType, school },
            proxy((done: number) => show(k, done / STATURES_MM.length, null)),
          ),
        )
    }
    void computeAll()
    return () => {
      isGone = true
      worker.terminate()
    }
  }, [types, school])
  const { fits } = progress
  return { progress, fits, isDone: fits.length === types.length }
}

/** Between which statures at least four in five find some type of the fleet that fits on every axis. */
function formatFleet(fleet: readonly number[], shown: Parameters<typeof formatBodyLength>[1]): string {
  const good = STATURES_MM.filter((_, i) => fleet[i] >= 0.8)
  if (good.length === 0) return 'At no height do four riders in five find all their marks on one type.'
  const [from, to] = [good[0], good[good.length - 1]].map((mm) => formatBodyLength(mm, shown))
  return `From ${from} to ${to}, at least four riders in five find all their marks on some type.`
}
