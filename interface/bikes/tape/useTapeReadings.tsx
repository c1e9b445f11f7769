import { App, Button } from 'antd'
import { useRouter } from 'next/navigation'
import { useMemo, useState } from 'react'
import type { BikeType } from '@/core/bikes/bike/bike'
import { calibrationProgress, type CalibrationProgress } from '@/core/bikes/calibration/progress'
import type { TapeReading } from '@/core/bikes/calibration/readings'
import { readingWithoutSlip, type TapeSlip } from '@/core/bikes/calibration/slips'
import { partId, useIdempotencyKey } from '../../commands/useIdempotencyKey'
import { command } from '../../commands/command'
import { useAction } from '../../commands/useAction'

type Stored = Readonly<{ id: string; row: TapeReading }>

/** A type's tape readings: added, withdrawn, corrected with undo, and put in force. */
export function useTapeReadings(typeId: string, bikeType: BikeType, stored: readonly Stored[]) {
  const router = useRouter()
  const { message, modal } = App.useApp()
  const { act, busy } = useAction()
  const [readings, setReadings] = useState(stored)
  const rows = useMemo(() => readings.map((r) => r.row), [readings])
  const state: CalibrationProgress = useMemo(() => calibrationProgress(bikeType, rows), [bikeType, rows])
  const [versionId] = useState(() => crypto.randomUUID())
  const { idFor, forget } = useIdempotencyKey()
  const correction = useIdempotencyKey()
  const isFar = state.fit.outcome === 'fitted' && state.fit.strays.length > 0

  /** Adds a reading; false where it was not stored. */
  async function add(row: TapeReading): Promise<boolean> {
    const reading = { id: idFor(row), row }
    if (!(await act(() => command('bikes.addTapeReading', { typeId, row }, reading.id)))) return false
    forget()
    setReadings((all) => [...all, reading])
    return true
  }

  async function withdraw(id: string) {
    if (!(await act(() => command('bikes.withdrawTapeReading', { readingId: id })))) return
    setReadings((all) => all.filter((r) => r.id !== id))
    message.info('Taken back.', 1.5)
  }

  async function replaceAll(
    all: readonly Stored[],
    rowsNow: readonly TapeReading[],
    writeId: string,
  ): Promise<Stored[] | null> {
    const by = rowsNow.map((row, i) => ({ id: partId(writeId, i), row }))
    const replaced = by.map(({ id, row }, i) => ({ id: all[i].id, newId: id, row }))
    if (!(await act(() => command('bikes.replaceTapeReadings', { typeId, replaced })))) return null
    // Readings stored meanwhile stay.
    const placed = new Map(all.map(({ id }, i) => [id, by[i]]))
    setReadings((now) => now.map((reading) => placed.get(reading.id) ?? reading))
    return by
  }

  /** Corrects every stored reading, with Undo in the message. */
  async function correct(slip: TapeSlip) {
    const rowsNow = rows.map((row) => readingWithoutSlip(bikeType, row, slip))
    const corrected = await replaceAll(readings, rowsNow, correction.idFor(rowsNow))
    if (!corrected) return
    correction.forget()
    const undoId = crypto.randomUUID()
    const undo = async () => {
      if (await replaceAll(corrected, rows, undoId)) message.destroy('corrected')
    }
    message.success({
      key: 'corrected',
      duration: 10,
      content: (
        <>
          All readings corrected. <Button onClick={undo}>Undo</Button>
        </>
      ),
    })
  }

  async function finishSurely() {
    if (!isFar) return finish()
    await modal.confirm({
      title: 'Put it in force all the same?',
      content: 'It lies far from this type’s description. Every set-up on these bikes will be computed from it.',
      okText: 'Put it in force',
      cancelText: 'Measure again',
      onOk: finish,
    })
  }

  async function finish() {
    if (!(await act(() => command('bikes.finishCalibration', { typeId }, versionId)))) return
    router.push('/bikes')
    router.refresh()
  }

  return { readings, rows, state, busy, add, withdraw, correct, finish: finishSurely }
}
