'use client'
import { App, Button, Select } from 'antd'
import { useRouter } from 'next/navigation'
import { useState } from 'react'
import type { Bike, BikeType } from '@/core/bike/bike'
import { axisPositions, contactPoints } from '@/core/bike/contactPoints'
import { LENGTHS, type TapeReading } from '@/core/calibration/readings'
import type { Marks } from '@/core/conventions'
import { LENGTH_NAME } from '@/core/messages/calibration'
import { formatMarks } from '@/core/messages/labels'
import { formatMachineWhy } from '@/core/messages/register'
import { formatBikeLength } from '@/core/units/length'
import { marksOnMachine } from '@/core/translate/onMachine'
import { addBikeReading, compareTapeReading } from '../bikes/actions'
import { EMPTY_LENGTHS, parseTape } from '../bikes/parseTape'
import { LengthField } from '../shared/LengthField'
import { useUnitSystem } from '../shared/Providers'
import { useIdempotencyKey } from '../shared/useIdempotencyKey'
import { useAction } from '../shared/useAction'
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
  const router = useRouter()
  const { shown } = useUnitSystem()
  const { act, busy } = useAction()
  const { modal } = App.useApp()
  const { idFor, forget } = useIdempotencyKey()
  const [bikeId, setBikeId] = useState<string | null>(null)
  const [typed, setTyped] = useState(EMPTY_LENGTHS)
  const [warning, setWarning] = useState('')
  const machine = machines.find(({ id }) => id === bikeId)
  const wanted = contactPoints(bikeType, undefined, axisPositions(bikeType, marks)).lengths
  const there = machine && marksOnMachine({ bikeType, marks }, { bikeType, bike: machine.machineCalibration })

  async function keep() {
    if (!machine || !there) return
    const { lengths, wrong } = parseTape(
      typed,
      { setback: 'direct', reach: 'seat' },
      bikeType.saddle.noseAheadMm,
      shown,
    )
    if (wrong) return setWarning(wrong)
    const row: TapeReading = { marks: there.marks, lengths }
    const weighed = await act(() => compareTapeReading(machine.id, row, shown))
    if (!weighed) return
    if (weighed.says.length === 0) return store(row, false)
    modal.confirm({
      title: 'This does not agree with the last tape',
      content: weighed.says.map((line) => <p key={line}>{line}</p>),
      okText: 'The bike has changed, keep it',
      cancelText: 'Measure again',
      onOk: () => store(row, true),
    })
  }
  async function store(row: TapeReading, resetsBaseline: boolean) {
    const reading = { kind: 'tape' as const, ...row, resetsBaseline }
    if (!(await act(() => addBikeReading(idFor([bikeId, reading]), bikeId!, reading)))) return
    forget()
    setTyped(EMPTY_LENGTHS)
    setWarning('')
    router.refresh()
  }
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
                title={`${LENGTH_NAME[length]}, wanted ${formatBikeLength(wanted[length], shown)}`}
                typed={typed[length]}
                placeholder={shown === 'imperial' ? 'in' : 'mm'}
                onEnter={keep}
                onTyped={(text) => {
                  setTyped((all) => ({ ...all, [length]: text }))
                  setWarning('')
                }}
              />
            ))}
          </div>
          <p className={styles.act} aria-live="polite">
            {warning}
          </p>
          <Button size="large" loading={busy} onClick={keep}>
            Keep what the tape reads
          </Button>
        </>
      )}
    </div>
  )
}
