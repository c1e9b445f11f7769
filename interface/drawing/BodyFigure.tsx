import { REGION_NAME, type Region } from '@/core/watch/signs'
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

/** A rider seen from behind; tapping a region lights it. For hands only: the same is to be had by buttons beside. */
export function BodyFigure({ lit, onPick }: { lit: Region | null; onPick: (region: Region) => void }) {
  return (
    <svg className={styles.figure} viewBox="0 0 130 340" aria-hidden="true">
      {(Object.keys(PARTS) as Region[]).map((region) => (
        <path
          key={region}
          className={region === lit ? styles.lit : styles.unlit}
          d={PARTS[region]}
          onPointerDown={() => onPick(region)}
        >
          <title>{REGION_NAME[region]}</title>
        </path>
      ))}
    </svg>
  )
}
