import pictures from './mountPictures.json' with { type: 'json' }
import { PICTURE_LAYERS, type PictureShape } from '../drawing/CheckPicture'
import styles from './mountPicture.module.css'

/** The pictures of getting on and off as they ship, drawn in their order, in a box of 160 × 150. */
export const MOUNT_PICTURES = pictures as unknown as Readonly<Record<string, readonly PictureShape[]>>

/** Our own picture of one step of getting on or off; what moves is lit. */
export function MountPicture({ name }: Readonly<{ name: string }>) {
  return (
    <svg className={styles.picture} viewBox="0 -8 160 158" aria-hidden="true">
      {MOUNT_PICTURES[name].map(({ layer, path, width, circle }, i) =>
        circle ? (
          <circle key={i} className={PICTURE_LAYERS[layer]} cx={circle[0]} cy={circle[1]} r={circle[2]} />
        ) : (
          <path key={i} className={PICTURE_LAYERS[layer]} d={path} strokeWidth={width} />
        ),
      )}
    </svg>
  )
}
