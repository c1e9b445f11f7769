import { useState } from 'react'
import { command } from '../../commands/command'
import type { ClassInfo } from '../classTypes'
import { Link } from '../../kit/Link'
import styles from './watch.module.css'

/** A class in which nobody has a bike: place the riders, or begin with who is here. */
export function NobodySits({
  info,
  withoutBike,
  placed,
}: Readonly<{ info: ClassInfo; withoutBike: number; placed: () => void }>) {
  const [state, setState] = useState<'asked' | 'busy' | 'failed'>('asked')
  const place = async () => {
    setState('busy')
    const done = await command('places.placeEverybody', { classId: info.id }).catch(() => null)
    setState(done?.outcome === 'kept' ? 'asked' : 'failed')
    if (done?.outcome === 'kept') placed()
  }
  return (
    <div className={styles.nobody}>
      <h2>Nobody has a bike yet</h2>
      <p>
        {withoutBike > 0
          ? `${withoutBike} on the list. A note needs a rider on a bike.`
          : 'Nobody is on the list. A note needs a rider on a bike.'}
      </p>
      {withoutBike > 0 && (
        <button type="button" className={styles.place} disabled={state === 'busy'} onClick={place}>
          {state === 'busy' ? 'Placing …' : 'Place the riders'}
        </button>
      )}
      <Link href={`/class/${info.id}`}>Begin with who is here</Link>
      {state === 'failed' && <p role="alert">The places could not be computed. Nothing changed; try again.</p>}
    </div>
  )
}
