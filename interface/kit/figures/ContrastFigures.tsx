import type { Bike } from '@/core/bikes/bike/bike'
import type { Marks } from '@/core/base/conventions'
import type { Contrast, ContrastSide } from '@/core/setups/show/contrast'
import {
  contrastAngleOf,
  CONTRAST_TITLE,
  formatContrastAngle,
  formatContrastFeel,
  formatContrastName,
} from '@/core/messages/setups/show'
import { drawn } from '../body/limb'
import { FarLeg, RiderBody } from '../body/RiderBody'
import { BikeFrame } from '../drawing/BikeFrame'
import { sideScene, type SideScene } from '../drawing/sideView'
import styles from './contrastFigures.module.css'

type Props = Readonly<{
  contrast: Contrast
  bike: Bike
  marks: Marks
  /** The figure that is meant now. */
  lit?: ContrastSide
}>

/** One rider beside themselves: too low, yours, too high; computed by the same geometry as the side view. */
export function ContrastFigures({ contrast, bike, marks, lit = 'yours' }: Props) {
  const { name, figures } = contrast
  const scenes = figures.map(({ bikeType, rider }) => sideScene(bikeType, bike, marks, rider))
  // One frame for all, so that the difference is the rider's and not the picture's.
  const topMm = Math.max(...scenes.map(({ frame }) => frame.topMm)) - 60
  const { leftMm, rightMm, bottomMm } = scenes[0].frame
  const box = `${leftMm + 40} ${-topMm} ${rightMm - leftMm - 120} ${topMm - bottomMm}`
  return (
    <section className={styles.contrast} aria-label={CONTRAST_TITLE[name]}>
      <h3>
        {CONTRAST_TITLE[name]} <small>{contrastAngleOf(name)}</small>
      </h3>
      <div className={styles.figures}>
        {figures.map((figure, i) => (
          <figure key={figure.side} className={figure.side === lit && name !== 'foot' ? LIT[lit] : undefined}>
            <svg viewBox={box} preserveAspectRatio="xMidYMax meet" aria-hidden="true">
              <Figure scene={scenes[i]} sight={name === 'height' || name === 'foot' ? 'knee' : 'trunk'} />
            </svg>
            <figcaption>
              <b>{formatContrastName(name, figure.side)}</b>
              <em>{formatContrastAngle(contrast, figure)}</em>
              <span>{formatContrastFeel(name, figure.side)}</span>
            </figcaption>
          </figure>
        ))}
      </div>
    </section>
  )
}

const LIT: Readonly<Record<ContrastSide, string>> = { less: styles.wrong, yours: styles.yours, more: styles.wrong }

function Figure({ scene, sight }: Readonly<{ scene: SideScene; sight: 'knee' | 'trunk' }>) {
  const { near, far, nearElbow, grip, pedalSurfaceMm } = scene
  if (near.outcome !== 'posed') return null
  const { hip, knee, ankle, shoulder } = near
  const line = sight === 'knee' ? [hip, knee, ankle] : [hip, shoulder]
  return (
    <>
      {far.outcome === 'posed' && <FarLeg pose={far} pedalSurfaceMm={pedalSurfaceMm} />}
      <BikeFrame scene={scene} />
      <RiderBody pose={near} elbow={nearElbow} grip={grip} pedalSurfaceMm={pedalSurfaceMm} />
      <path className={styles.sight} d={`M${line.map(drawn).join('L')}`} />
      {line.map((point, i) => (
        <circle key={i} className={styles.joint} cx={point.xMm} cy={-point.yMm} r={20} />
      ))}
    </>
  )
}
