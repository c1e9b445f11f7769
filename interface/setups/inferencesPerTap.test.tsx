import { act, renderHook } from '@testing-library/react'
import { useMemo } from 'react'
import type { RecommendRequest } from '@/core/setups/recommend/request/request'
import { HOLES_BIKE } from '@/core/testing/meanRider'
import type { DraftEntry } from '../offline/OutboxProvider'
import type { StoredEntry } from '../offline/store'
import { requestCore } from '../compute/requestCore'
import { useRecommendation } from '../compute/useRecommendation'
import { useSetupRows } from './rows/useSetupRows'

jest.mock('../compute/requestCore', () => ({ requestCore: jest.fn() }))
const inferred = jest.mocked(requestCore)

/** What the outbox shows; a test moves it along as delivery does. */
let entries: readonly StoredEntry[] = []
const enqueue = async (queue: string, drafts: readonly DraftEntry[]) => {
  entries = drafts.map(
    (entry, seq) => ({ seq, queue, state: 'waiting', attempts: 0, say: '', code: '', entry }) as unknown as StoredEntry,
  )
}
jest.mock('../offline/OutboxProvider', () => ({ useOutbox: () => ({ entries, enqueue }) }))

/** The hooks of the set-up view: its rows, and the recommendation for them. */
function useSetup() {
  const setup = useSetupRows('setup', NONE)
  const request = useMemo<RecommendRequest>(
    () => ({ bikeType: HOLES_BIKE, evidence: setup.rows.map(({ row }) => row) }),
    [setup.rows],
  )
  return { ...setup, ...useRecommendation(request) }
}
const NONE = [] as const

beforeEach(() => {
  jest.useFakeTimers()
  entries = []
  inferred.mockReset().mockResolvedValue({})
})
afterEach(() => jest.useRealTimers())

test('infers once for a tap, through waiting, sending, delivery and the next poll', async () => {
  const { result, rerender } = renderHook(useSetup)
  await act(async () => undefined)
  inferred.mockClear()

  await act(async () => result.current.add({ kind: 'stature', mm: 1700 }))
  const [{ id, row }] = result.current.rows
  const become = async (next: readonly StoredEntry[]) => {
    entries = next
    await act(async () => rerender())
  }
  await become([...entries])
  await become(entries.map((one) => ({ ...one, state: 'sending' })))
  await become([])
  global.fetch = jest.fn(async () => ({
    ok: true,
    json: async () => ({ rows: [{ id, row }], finished: false }),
  })) as never
  await act(async () => jest.advanceTimersByTimeAsync(5000))
  expect(global.fetch).toHaveBeenCalled()
  expect(result.current.rows).toEqual([{ id, row }])
  expect(inferred).toHaveBeenCalledTimes(1)
})

test('of requests that come while one is computed only the last is computed', async () => {
  let answer: (found: object) => void = () => undefined
  inferred.mockImplementation(() => new Promise((resolve) => (answer = resolve)))
  const request = (mm: number): RecommendRequest => ({ bikeType: HOLES_BIKE, evidence: [{ kind: 'stature', mm }] })
  const { result, rerender } = renderHook(useRecommendation, { initialProps: request(1600) })
  for (const mm of [1610, 1620, 1630]) rerender(request(mm))
  expect(inferred).toHaveBeenCalledTimes(1)
  await act(async () => answer({ of: 1600 }))
  expect(result.current).toMatchObject({ answer: null, working: true })
  expect(inferred.mock.calls.map(([, of]) => (of as RecommendRequest).evidence[0])).toEqual([
    { kind: 'stature', mm: 1600 },
    { kind: 'stature', mm: 1630 },
  ])
  await act(async () => answer({ of: 1630 }))
  expect(result.current).toMatchObject({ answer: { of: 1630 }, working: false })
})
