'use client'
import { Button, Drawer } from 'antd'
import Link from 'next/link'
import { useState } from 'react'
import { REGION_NAME, REGIONS, SIGNS, type Region, type Sign } from '@/core/watch/signs'
import type { ClassBike, Side } from './classTypes'
import { BodyFigure } from './BodyFigure'
import styles from './noteDrawer.module.css'

type Props = Readonly<{
  bike: ClassBike | null
  close: () => void
  onSee: (bike: ClassBike, sign: Sign, side: Side) => void
  onWho: (bikeId: string) => void
}>

/** What is seen of a rider: the region from the feet up, then the sign with its side; two taps, no reading. */
export function NoteDrawer({ bike, close, onSee, onWho }: Props) {
  return (
    <Drawer
      open={bike !== null}
      onClose={close}
      title={bike ? `${bike.number} · ${bike.rider?.name}` : ''}
      size={620}
      destroyOnHidden
    >
      {bike && <Sheet bike={bike} onSee={onSee} onWho={onWho} />}
    </Drawer>
  )
}

function Sheet({ bike, onSee, onWho }: { bike: ClassBike } & Pick<Props, 'onSee' | 'onWho'>) {
  const [region, setRegion] = useState<Region>('feet')
  return (
    <div className={styles.sheet}>
      <div className={styles.body}>
        <BodyFigure lit={region} />
        <div className={styles.regions} role="group" aria-label="Region, from the feet up">
          {[...REGIONS].reverse().map((name) => (
            <button key={name} type="button" aria-pressed={name === region} onClick={() => setRegion(name)}>
              {REGION_NAME[name]}
            </button>
          ))}
        </div>
      </div>
      <div className={styles.signs} aria-live="polite">
        {SIGNS.filter((s) => s.region === region).map((sign) => (
          <div key={sign.sign} className={styles.sign} role="group" aria-label={sign.name}>
            {sign.sided ? (
              <>
                <p>{sign.name}</p>
                <div>
                  {(['left', 'both', 'right'] as const).map((side) => (
                    <button
                      key={side}
                      type="button"
                      aria-label={`${sign.name}, ${side}`}
                      onClick={() => onSee(bike, sign, side)}
                    >
                      {side}
                    </button>
                  ))}
                </div>
              </>
            ) : (
              <button type="button" className={styles.whole} onClick={() => onSee(bike, sign, 'both')}>
                {sign.name}
              </button>
            )}
          </div>
        ))}
      </div>
      <div className={styles.foot}>
        <Button onClick={() => onWho(bike.id)}>Someone else</Button>
        <Link href={`/riders/${bike.rider!.id}`}>Numbers and notes</Link>
      </div>
    </div>
  )
}
