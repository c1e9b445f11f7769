'use client'
import { Modal } from 'antd'
import type { Bike, BikeType } from '@/core/bikes/bike/bike'
import type { Marks } from '@/core/base/conventions'
import type { Rider } from '@/core/riders/kinematics/pose'
import { GettingOn } from './GettingOn'
import { ShowIt } from './ShowIt'
import styles from './show.module.css'

type Props = Readonly<{
  open: boolean
  close: () => void
  name: string
  bikeType: BikeType
  bike: Bike
  marks: Marks
  rider: Rider | null
}>

/** During a set-up: the rider is shown themselves at the marks of now, wrong and right, and how to get on and off. */
export default function ShowItDialog({ open, close, name, bikeType, bike, marks, rider }: Props) {
  return (
    <Modal
      open={open}
      onCancel={close}
      footer={null}
      title={`${name}, on ${bikeType.name}`}
      width={980}
      destroyOnHidden
    >
      <div className={styles.set}>
        {rider ? (
          <ShowIt bikeType={bikeType} bike={bike} marks={marks} rider={rider} />
        ) : (
          <p className={styles.none}>The body is being worked out. Close this, and look again in a moment.</p>
        )}
        <GettingOn />
      </div>
    </Modal>
  )
}
