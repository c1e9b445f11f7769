import { useId } from 'react'
import { REGION_NAME, type Region } from '@/core/classes/watch/signs'
import styles from './bodyFigure.module.css'

/** Outlines of the regions in a 130 × 340 box: a rider seen from behind, so that left is left. */
const PARTS: Readonly<Record<Region, string>> = {
  head: 'M65 6a19 23 0 0 1 0 48a19 23 0 0 1 0-48Z',
  shoulders: 'M26 86q2-24 26-26h26q24 2 26 26l-14 10H40Z',
  hands: 'M24 90q-11 30-7 58l7 30h12l-4-34q0-26 9-44ZM106 90q11 30 7 58l-7 30H94l4-34q0-26-9-44Z',
  spine: 'M44 100h42l-3 52H47Z',
  hips: 'M45 156h40q9 16 7 30H38q-2-14 7-30Z',
  load: 'M38 190h25l-4 44H42ZM67 190h25l-4 44H71Z',
  knees: 'M41 238h19v24H42ZM70 238h19l-1 24H70Z',
  feet: 'M43 266h16l-2 42q2 18-12 20h-7q-5-8 3-22ZM71 266h16l2 40q8 14 3 22h-7q-14-2-12-20Z',
}

type Props = Readonly<{
  lit: Region | null
  /** Only this side of a lit region is lit; null and 'both': all of it. */
  side?: 'left' | 'both' | 'right' | null
  onPick: (region: Region) => void
}>

/** Left and right half of the drawing: seen from behind, the rider's left is on the left. */
const HALF = { left: 'M0 0H65V340H0Z', right: 'M65 0H130V340H65Z' } as const

/** A rider seen from behind; tapping a region lights it. For hands only: the same is to be had by buttons beside. */
export function BodyFigure({ lit, side = null, onPick }: Props) {
  const clipId = useId()
  const half = side === 'left' || side === 'right' ? HALF[side] : null
  return (
    <svg className={styles.figure} viewBox="0 0 130 340" aria-hidden="true">
      {(Object.keys(PARTS) as Region[]).map((region) => (
        <path
          key={region}
          className={region === lit && !half ? styles.lit : styles.unlit}
          d={PARTS[region]}
          onPointerDown={() => onPick(region)}
        >
          <title>{REGION_NAME[region]}</title>
        </path>
      ))}
      {lit && half && (
        <>
          <clipPath id={clipId}>
            <path d={half} />
          </clipPath>
          <path className={styles.lit} clipPath={`url(#${clipId})`} d={PARTS[lit]} onPointerDown={() => onPick(lit)} />
        </>
      )}
    </svg>
  )
}
