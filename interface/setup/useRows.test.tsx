import { act, renderHook, waitFor } from '@testing-library/react'
import type { Evidence } from '@/core/evidence/evidence'
import { keep, withdraw } from './actions'
import { useRows } from './useRows'

jest.mock('./actions', () => ({ keep: jest.fn(), withdraw: jest.fn() }))
const server = { keep: jest.mocked(keep), withdraw: jest.mocked(withdraw) }
const row: Evidence = { kind: 'heelCheck', seen: 'justStraight', at: { seatHeight: '8' } }
let ids = 0

beforeAll(() => {
  Object.defineProperty(globalThis.crypto, 'randomUUID', { value: () => `id-${++ids}`, configurable: true })
})
beforeEach(() => {
  localStorage.clear()
  server.keep.mockReset().mockResolvedValue({ outcome: 'kept' })
  server.withdraw.mockReset().mockResolvedValue({ outcome: 'kept' })
})

const start = (refused = jest.fn()) => ({ refused, ...renderHook(() => useRows('s1', [], refused)) })

test('a tap counts at once and is told to the server once', async () => {
  const { result } = start()
  act(() => result.current.add(row))
  expect(result.current.rows.map((r) => r.row)).toEqual([row])
  await waitFor(() => expect(result.current.saving).toBe('saved'))
  expect(server.keep).toHaveBeenCalledTimes(1)
  expect(localStorage.length).toBe(0)
})

test('what the server refuses is taken out again and told in its words', async () => {
  server.keep.mockResolvedValue({ outcome: 'refused', say: 'the seat height has no mark 99' })
  const { result, refused } = start()
  act(() => result.current.add(row))
  await waitFor(() => expect(refused).toHaveBeenCalledWith('the seat height has no mark 99'))
  expect(result.current.rows).toEqual([])
})

test('a correction withdraws the old row and keeps the new one, in this order', async () => {
  const { result } = start()
  act(() => result.current.add(row))
  await waitFor(() => expect(result.current.saving).toBe('saved'))
  const [old] = result.current.rows
  act(() => result.current.replace(old, { ...row, seen: 'stillBent' }))
  expect(result.current.rows.map((r) => r.row)).toEqual([{ ...row, seen: 'stillBent' }])
  await waitFor(() => expect(result.current.saving).toBe('saved'))
  expect(server.withdraw).toHaveBeenCalledWith('s1', old.id)
  expect(server.withdraw.mock.invocationCallOrder[0]).toBeLessThan(server.keep.mock.invocationCallOrder[1])
})

test('with the network gone the tap stays on the device, and a page opened again sends it', async () => {
  server.keep.mockRejectedValue(new Error('no network'))
  const first = start()
  act(() => first.result.current.add(row))
  await waitFor(() => expect(first.result.current.saving).toBe('waiting'))
  first.unmount()
  expect(JSON.parse(localStorage.getItem('set-up s1')!)).toMatchObject([{ say: 'keep', row }])

  server.keep.mockReset().mockResolvedValue({ outcome: 'kept' })
  const again = start()
  await waitFor(() => expect(again.result.current.rows.map((r) => r.row)).toEqual([row]))
  await waitFor(() => expect(again.result.current.saving).toBe('saved'))
  expect(server.keep).toHaveBeenCalled()
  expect(localStorage.length).toBe(0)
})

test('what lies on the device in another shape is no obstacle', async () => {
  localStorage.setItem('set-up s1', '{"not": "a list"')
  const { result } = start()
  act(() => result.current.add(row))
  await waitFor(() => expect(result.current.saving).toBe('saved'))
})
