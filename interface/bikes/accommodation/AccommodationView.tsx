'use client'
import { Button, Progress } from 'antd'
import '@/interface/kit/antd/progress.generated.css'
import { proxy, wrap } from 'comlink'
import { useEffect, useMemo, useState } from 'react'
import { axesOf, type BikeType } from '@/core/bikes/bike/bike'
import type { AxisName } from '@/core/base/conventions'
import { accommodationLimits, STATURES_MM } from '@/core/setups/fleet/accommodation'
import type { AccommodationRequest, AccommodationResponse } from '@/core/operations/requests/accommodation'
import { formatBodyLength } from '@/core/base/length'
import { formatLimit } from '@/core/messages/bikes/accommodation'
import { AXIS_TITLE } from '@/core/messages/words/phrases'
import { useUnitSystem } from '../../kit/theme/DevicePreferences'
import { AccommodationChart, DASHES, FLEET, INKS } from './AccommodationChart'
import parts from '../parts.module.css'
import styles from './accommodationView.module.css'
import type { AccommodationWorker } from './accommodation.worker'

type Props = Readonly<{
  types: readonly Readonly<{ lineId: string; bikeType: BikeType; count: number }>[]
  request: AccommodationRequest
  /** The answer where the server has it already. */
  computed: AccommodationResponse | null
}>

/** For every stature the share of riders who find their marks, by type, by axis and for the whole fleet. */
export function AccommodationView({ types, request, computed }: Props) {
  const { shown } = useUnitSystem()
  const { answer, done } = useAccommodation(request, computed)
  const [axis, setAxis] = useState<AxisName | 'all'>('all')

  const rows = useMemo(
    () =>
      STATURES_MM.map((statureMm, i) => ({
        statureMm,
        ...(axis === 'all' && answer && types.length > 1 && { [FLEET]: Math.round(100 * answer.fleet[i]) }),
        ...Object.fromEntries(
          types.map((t, k) => {
            const fit = answer?.types[k][i]
            return [t.bikeType.name, fit ? Math.round(100 * (axis === 'all' ? fit.all : (fit.axes[axis] ?? 1))) : null]
          }),
        ),
      })),
    [types, answer, axis],
  )
  const limits = (answer?.types ?? []).flatMap((of, k) =>
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
        {answer ? (
          <>
            <p className={styles.fleet}>{formatFleet(answer.fleet, shown)}</p>
            <ul className={styles.limits} aria-label="Limits">
              {limits.length === 0 ? (
                <li>Nearly everyone from 140 to 205 cm finds a mark on every type.</li>
              ) : (
                limits.map((line) => <li key={line}>{line}</li>)
              )}
            </ul>
          </>
        ) : (
          <Progress percent={Math.round(100 * done)} aria-label="Working it out" strokeColor="var(--act)" />
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

/** The server's answer, or the same computed in a worker of the page, with the share (0 to 1) that is done. */
function useAccommodation(request: AccommodationRequest, computed: AccommodationResponse | null) {
  const [own, setOwn] = useState<Readonly<{ of: AccommodationRequest; answer: AccommodationResponse }> | null>(null)
  const [done, setDone] = useState(0)
  useEffect(() => {
    if (computed) return
    const worker = new Worker(new URL('./accommodation.worker.ts', import.meta.url), { type: 'module' })
    const { accommodation } = wrap<AccommodationWorker>(worker)
    let isGone = false
    const compute = async () => {
      const found = await accommodation(
        request,
        proxy((share: number) => !isGone && setDone(share)),
      )
      if (!isGone) setOwn({ of: request, answer: found })
    }
    void compute()
    return () => {
      isGone = true
      worker.terminate()
    }
  }, [request, computed])
  // An answer to earlier types is none to these.
  return { answer: computed ?? (own?.of === request ? own.answer : null), done }
}

/** Between which statures at least four in five find some type of the fleet that fits on every axis. */
function formatFleet(fleet: readonly number[], shown: Parameters<typeof formatBodyLength>[1]): string {
  const good = STATURES_MM.filter((_, i) => fleet[i] >= 0.8)
  if (good.length === 0) return 'At no height do four riders in five find all their marks on one type.'
  const [from, to] = [good[0], good[good.length - 1]].map((mm) => formatBodyLength(mm, shown))
  return `From ${from} to ${to}, at least four riders in five find all their marks on some type.`
}
