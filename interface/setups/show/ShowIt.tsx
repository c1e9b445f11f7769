import type { Bike, BikeType } from '@/core/bikes/bike/bike'
import type { Marks } from '@/core/base/conventions'
import type { Rider } from '@/core/riders/kinematics/pose'
import { contrasts, type ContrastName, type ContrastSide } from '@/core/setups/show/contrast'
import { ContrastFigures } from '../../kit/figures/ContrastFigures'
import styles from './show.module.css'

type Props = Readonly<{
  bikeType: BikeType
  bike: Bike
  marks: Marks
  rider: Rider
  /** All where left out. */
  only?: readonly ContrastName[]
  lit?: ContrastSide
}>

/** A rider with their own lengths beside themselves, wrong first and then right, for each thing that can be wrong. */
export function ShowIt({ bikeType, bike, marks, rider, only, lit }: Props) {
  const shown = contrasts(bikeType, bike, marks, rider).filter(({ name }) => !only || only.includes(name))
  if (shown.length === 0)
    return <p className={styles.none}>This body cannot be drawn at these marks. Set the bike to them and look again.</p>
  return (
    <div className={styles.show}>
      {shown.map((contrast) => (
        <ContrastFigures key={contrast.name} contrast={contrast} bike={bike} marks={marks} lit={lit} />
      ))}
    </div>
  )
}
