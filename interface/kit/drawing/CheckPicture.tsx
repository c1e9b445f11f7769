import type { CheckName } from '@/core/messages/setups/checks'
import type { LandmarkAtMark } from '@/core/riders/evidence/definition/landmarks'
import pictures from './checkPictures.json' with { type: 'json' }
import styles from './checkPicture.module.css'

/** What a line of a picture belongs to; it gives the line its colour and width. */
export const PICTURE_LAYERS = {
  floor: styles.floor,
  bike: styles.bike,
  ring: styles.ring,
  body: styles.body,
  sight: styles.sight,
  spot: styles.spot,
  spotLine: styles.spotLine,
  spotFill: styles.spotFill,
} as const

/** A path (SVG path data) with the width of a limb, or a circle as [x, y, radius]; in a box of 120 × 132. */
export type PictureShape = Readonly<{
  layer: keyof typeof PICTURE_LAYERS
  path?: string
  width?: number
  circle?: readonly number[]
}>

/** The pictures as they ship, drawn in their order; `checkPictures.test.ts` validates them. */
export const PICTURES = pictures as unknown as Readonly<Record<string, readonly PictureShape[]>>

/** Checks that share the picture of another one. */
const SAME_AS: Readonly<Partial<Record<CheckName, CheckName>>> = {
  rider: 'recheck',
  school: 'build',
  gauge: 'kneeAngle',
}

/** Name of a check's picture; a landmark at a mark has one for each place on the body. */
export const pictureOf = (check: CheckName, landmark: LandmarkAtMark): string =>
  check === 'landmark' ? landmark : (SAME_AS[check] ?? check)

/**
 * Our own small picture of a check: the spot, the instructor's place, and what good looks like. What is looked at is
 * lit.
 */
export function CheckPicture({ check, landmark }: { check: CheckName; landmark: LandmarkAtMark }) {
  return (
    <svg className={styles.picture} viewBox="0 0 120 132" aria-hidden="true">
      {PICTURES[pictureOf(check, landmark)].map(({ layer, path, width, circle }, i) =>
        circle ? (
          <circle key={i} className={PICTURE_LAYERS[layer]} cx={circle[0]} cy={circle[1]} r={circle[2]} />
        ) : (
          <path key={i} className={PICTURE_LAYERS[layer]} d={path} strokeWidth={width} />
        ),
      )}
    </svg>
  )
}
