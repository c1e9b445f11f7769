'use client'
import { App } from 'antd'
import { useRouter } from 'next/navigation'
import { useState } from 'react'
import type { TapeReading } from '@/core/bikes/calibration/readings'
import type { Marks } from '@/core/base/conventions'
import { useUnitSystem } from '../../kit/theme/DevicePreferences'
import { useAction } from '../../commands/useAction'
import { useIdempotencyKey } from '../../commands/useIdempotencyKey'
import { query, command } from '../../commands/command'
import { EMPTY_LENGTHS, parseTape, type TypedLengths } from './parseTape'

/**
 * The tape on one machine, from typing to storing: compared with the last one first, and confirmed where it does
 * not agree.
 */
export function useSaveTape(noseAheadMm: number) {
  const router = useRouter()
  const { shown } = useUnitSystem()
  const { act, busy } = useAction()
  const { idFor, forget } = useIdempotencyKey()
  const { modal } = App.useApp()
  const [typed, setTyped] = useState<TypedLengths>(EMPTY_LENGTHS)
  const [warning, setWarning] = useState('')

  function type(length: keyof TypedLengths, text: string) {
    setTyped((all) => ({ ...all, [length]: text }))
    setWarning('')
  }
  async function save(bikeId: string, marks: Marks) {
    const { lengths, wrong } = parseTape(typed, { setback: 'direct', reach: 'seat' }, noseAheadMm, shown)
    if (wrong) return setWarning(wrong)
    const row: TapeReading = { marks, lengths }
    const weighed = await act(() => query('bikes.compareTapeReading', { bikeId, row, shown }))
    if (!weighed) return
    if (weighed.says.length === 0) return store(bikeId, row, false)
    modal.confirm({
      title: 'This does not agree with the last tape',
      content: weighed.says.map((line) => <p key={line}>{line}</p>),
      okText: 'The bike has changed, keep it',
      cancelText: 'Measure again',
      onOk: () => store(bikeId, row, true),
    })
  }
  async function store(bikeId: string, row: TapeReading, resetsBaseline: boolean) {
    const reading = { kind: 'tape' as const, ...row, resetsBaseline }
    if (!(await act(() => command('bikes.addBikeReading', { bikeId, reading }, idFor([bikeId, reading]))))) return
    forget()
    setTyped(EMPTY_LENGTHS)
    setWarning('')
    router.refresh()
  }
  return { typed, type, keep: save, warning, busy, shown }
}
