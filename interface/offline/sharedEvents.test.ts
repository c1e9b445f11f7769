/** @jest-environment node */
import { listenShared } from './sharedEvents'

/** Streams as the browser opens them; a test sends into them. */
class FakeSource {
  static open: FakeSource[] = []
  onopen: (() => void) | null = null
  onmessage: ((event: { data: string }) => void) | null = null
  onerror: (() => void) | null = null
  constructor(readonly url: string) {
    FakeSource.open.push(this)
  }
  close() {
    FakeSource.open = FakeSource.open.filter((one) => one !== this)
  }
}

/** The lock of a device: one holder, the next in line when it lets go. */
function fakeLocks() {
  let tail: Promise<unknown> = Promise.resolve()
  return {
    request: (_: string, { signal }: { signal: AbortSignal }, work: () => Promise<void>) => {
      const mine = tail.then(() => (signal.aborted ? undefined : work()))
      tail = mine
      return mine
    },
  }
}
/** What waits in queues and channels has had its turn. */
const turns = async () => {
  for (let i = 0; i < 5; i++) await new Promise((resolve) => setImmediate(resolve))
}

beforeEach(() => {
  FakeSource.open = []
  Object.assign(globalThis, { EventSource: FakeSource })
  Object.defineProperty(globalThis, 'navigator', { value: { locks: fakeLocks() }, configurable: true })
})

const listener = (url: string) => {
  const heard: string[] = []
  const stop = listenShared(url, { message: (data) => heard.push(data), back: () => heard.push('back') })
  return { heard, stop }
}

test('however many tabs listen, one stream is open, and all hear what comes', async () => {
  const tabs = [listener('/news'), listener('/news'), listener('/news')]
  await turns()
  expect(FakeSource.open).toHaveLength(1)
  FakeSource.open[0].onmessage!({ data: 'one' })
  await turns()
  expect(tabs.map(({ heard }) => heard)).toEqual([['one'], ['one'], ['one']])
  tabs.forEach(({ stop }) => stop())
  await turns()
  expect(FakeSource.open).toEqual([])
})

test('when the tab that listens goes, the next takes over and requests what was missed', async () => {
  const [first, second] = [listener('/news'), listener('/news')]
  await turns()
  first.stop()
  await turns()
  expect(FakeSource.open).toHaveLength(1)
  FakeSource.open[0].onopen!()
  FakeSource.open[0].onmessage!({ data: 'two' })
  await turns()
  expect(second.heard).toEqual(['back', 'two'])
  expect(first.heard).toEqual([])
  second.stop()
})

test('a stream that ends is opened again, and then something may have been missed', async () => {
  jest.useFakeTimers({ doNotFake: ['setImmediate'] })
  const tab = listener('/news')
  await turns()
  FakeSource.open[0].onopen!()
  FakeSource.open[0].onerror!()
  expect(FakeSource.open).toEqual([])
  jest.advanceTimersByTime(2000)
  FakeSource.open[0].onopen!()
  expect(tab.heard).toEqual(['back', 'back'])
  tab.stop()
  jest.useRealTimers()
})

test('a browser without locks listens in each tab separately', async () => {
  Object.defineProperty(globalThis, 'navigator', { value: {}, configurable: true })
  const tabs = [listener('/news'), listener('/news')]
  expect(FakeSource.open).toHaveLength(2)
  tabs.forEach(({ stop }) => stop())
  expect(FakeSource.open).toEqual([])
})
