'use client'
import { Button, Select } from 'antd'
import '@/interface/kit/antd/select.generated.css'
import { useState } from 'react'
import type { Bike, BikeType } from '@/core/bikes/bike/bike'
import { axisPositions, contactPoints } from '@/core/bikes/bike/contactPoints'
import { LENGTHS } from '@/core/bikes/calibration/readings'
import type { Marks } from '@/core/base/conventions'
import { LENGTH_NAME } from '@/core/messages/bikes/calibration'
import { formatMarks } from '@/core/messages/words/labels'
import { formatMachineWhy } from '@/core/messages/setups/register'
import { formatBikeLength } from '@/core/base/length'
import { marksOnMachine } from '@/core/setups/translate/onMachine'
import { useSaveTape } from '../../bikes/tape/useSaveTape'
import { LengthField } from '../../kit/LengthField'
import styles from './tapeVerify.module.css'

type Props = Readonly<{
  bikeType: BikeType
  machines: readonly Readonly<{ id: string; number: number; machineCalibration: Bike }>[]
  /** The marks on the type, for a machine without offsets. */
  marks: Marks
}>

/**
 * The numbers on one machine of the type, and the tape over it: what the tape reads is the truth, the machine learns
 * from it, and the marks follow.
 */
export function TapeVerify({ bikeType, machines, marks }: Props) {
  const { typed, type, keep: save, warning, busy, shown } = useSaveTape(bikeType.saddle.noseAheadMm)
  const [bikeId, setBikeId] = useState<string | null>(null)
  const machine = machines.find(({ id }) => id === bikeId)
  const target = contactPoints(bikeType, undefined, axisPositions(bikeType, marks)).lengths
  const there = machine && marksOnMachine({ bikeType, marks }, { bikeType, bike: machine.machineCalibration })
  return (
    <div className={styles.verify}>
      <Select
        size="large"
        aria-label="On which machine"
        placeholder="On one machine, by tape"
        value={bikeId}
        onChange={setBikeId}
        options={machines.map(({ id, number }) => ({ value: id, label: `Bike ${number}` }))}
      />
      {machine && there && (
        <>
          <p className={styles.there} aria-live="polite">
            <b>{formatMarks(bikeType, there.marks)}</b>
            <span>
              {there.moved.length > 0
                ? `on bike ${machine.number}: ${formatMachineWhy(there)}`
                : `on bike ${machine.number}`}
            </span>
          </p>
          <div className={styles.fields}>
            {LENGTHS.map((length) => (
              <LengthField
                key={length}
                title={`${LENGTH_NAME[length]}, wanted ${formatBikeLength(target[length], shown)}`}
                typed={typed[length]}
                placeholder={shown === 'imperial' ? 'in' : 'mm'}
                onEnter={() => save(machine.id, there.marks)}
                onTyped={(text) => type(length, text)}
              />
            ))}
          </div>
          <p className={styles.act} aria-live="polite">
            {warning}
          </p>
          <Button size="large" loading={busy} onClick={() => save(machine.id, there.marks)}>
            Keep what the tape reads
          </Button>
        </>
      )}
    </div>
  )
}
