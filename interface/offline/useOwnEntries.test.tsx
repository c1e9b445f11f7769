import { act, renderHook } from '@testing-library/react'
import { useOwnEntries } from './useOwnEntries'

type Waiting = readonly Readonly<{ id: string; entry: string }>[] | null
const NONE_REFUSED: ReadonlySet<string> = new Set()
const TAP = { id: 'tap', entry: 'knees out' }

let nowMs = 0
beforeEach(() => {
  nowMs = 1000
  jest.spyOn(performance, 'now').mockImplementation(() => nowMs)
})
afterEach(() => jest.restoreAllMocks())

function hook(waiting: Waiting = []) {
  const view = renderHook(
    (props: { waiting: Waiting; refused: ReadonlySet<string> }) => useOwnEntries(props.waiting, props.refused),
    { initialProps: { waiting, refused: NONE_REFUSED } },
  )
  return {
    shown: () => view.result.current.own.map(({ id }) => id),
    current: () => view.result.current,
    outbox: (now: Waiting, refused = NONE_REFUSED) => view.rerender({ waiting: now, refused }),
  }
}

test('an entry stays until a state requested after its delivery', async () => {
  const { shown, current, outbox } = hook()
  let store = () => {}
  act(() => current().add([TAP], new Promise<void>((resolve) => (store = resolve))))
  // The outbox lists the entry before the promise of its storing resolves.
  outbox([TAP])
  await act(async () => store())
  nowMs = 2000
  act(() => current().settle(nowMs))
  expect(shown()).toEqual(['tap'])
  // Requested while the entry waits, answered after its delivery: that state lacks it.
  const requestedAtMs = nowMs
  nowMs = 3000
  outbox([])
  act(() => current().settle(requestedAtMs))
  expect(shown()).toEqual(['tap'])
  nowMs = 4000
  act(() => current().settle(nowMs))
  expect(shown()).toEqual([])
})

test('an entry delivered before the outbox lists it goes with the next state', async () => {
  const { shown, current } = hook()
  await act(async () => current().add([TAP], Promise.resolve()))
  expect(shown()).toEqual(['tap'])
  nowMs = 2000
  act(() => current().settle(nowMs))
  expect(shown()).toEqual([])
})

test('entries from before the page are shown first, and refused ones are dropped', () => {
  const { shown, current, outbox } = hook(null)
  act(() => current().add([TAP], new Promise(() => {})))
  outbox([{ id: 'earlier', entry: 'heels down' }])
  expect(shown()).toEqual(['earlier', 'tap'])
  outbox([], new Set(['earlier']))
  expect(shown()).toEqual(['tap'])
})

test('an entry that the server reports replaces the device’s own, and others’ are added', () => {
  const { current } = hook()
  act(() => current().add([TAP], new Promise(() => {})))
  act(() => current().report('tap', 'knees out, at the server’s time'))
  act(() => current().report('colleague', 'elbows locked'))
  expect(current().own.map(({ entry }) => entry)).toEqual(['knees out, at the server’s time', 'elbows locked'])
})
