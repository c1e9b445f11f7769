import { act, renderHook } from '@testing-library/react'
import type { Evidence } from '@/core/riders/evidence/registry'
import type { DraftEntry } from '../../offline/OutboxProvider'
import { useSetupRows } from './useSetupRows'

const sent: DraftEntry[] = []
jest.mock('../../offline/OutboxProvider', () => {
  const entries: readonly never[] = []
  const enqueue = async (_queue: string, drafts: readonly DraftEntry[]) => void sent.push(...drafts)
  return { useOutbox: () => ({ entries, enqueue }) }
})

const read = (deg: number): Evidence => ({ kind: 'kneeAngle', by: 'goniometer', deg, at: { seatHeight: '7' } })
const stored = [{ id: 'stored', row: read(41) }]

function hook() {
  const { result } = renderHook(() => useSetupRows('setup', stored))
  const degs = () => result.current.rows.map(({ row }) => (row.kind === 'kneeAngle' ? row.deg : row.kind))
  return { result, degs }
}

test('undo of a replaced reading goes back to the former value, step by step', async () => {
  const { result, degs } = hook()
  await act(async () => result.current.replace(result.current.rows[0], read(33)))
  await act(async () => result.current.replace(result.current.rows[0], read(30)))
  expect(degs()).toEqual([30])
  await act(async () => result.current.undo())
  expect(degs()).toEqual([33])
  await act(async () => result.current.undo())
  expect(degs()).toEqual([41])
  // The stored one replaced nothing: taken back it is gone.
  await act(async () => result.current.undo())
  expect(degs()).toEqual([])
  await act(async () => result.current.undo())
  expect(degs()).toEqual([])
})

test('several replaced together come back together', async () => {
  const { result, degs } = hook()
  await act(async () => result.current.add(read(20)))
  const [first, second] = result.current.rows
  await act(async () =>
    result.current.replaceAll([
      { old: first, row: read(38) },
      { old: second, row: read(18) },
    ]),
  )
  expect(degs()).toEqual([38, 18])
  await act(async () => result.current.undo())
  expect(degs()).toEqual([41, 20])
})
