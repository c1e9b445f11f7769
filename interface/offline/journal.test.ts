import '@/tests/withoutBroadcast'
import 'fake-indexeddb/auto'
import type { OutboxEntry } from '@/server/platform/entry'
import { createJournal, recover, type JournalStorage } from './journal'
import { storeOf } from '@/tests/deviceStore'
import { memoryStore, withFallback, type NewEntry } from './store'

function storageOf(map = new Map<string, string>()): JournalStorage & { map: Map<string, string> } {
  return {
    map,
    get length() {
      return map.size
    },
    key: (i) => [...map.keys()][i] ?? null,
    getItem: (key) => map.get(key) ?? null,
    setItem: (key, value) => void map.set(key, value),
    removeItem: (key) => void map.delete(key),
  }
}
const tap = (id: string): NewEntry => ({
  queue: 'a',
  entry: {
    id,
    author: 'ines',
    madeAtMs: 0,
    op: 'appendEvidence',
    setupId: 's',
    row: { kind: 'stature', mm: 1700 },
  } as OutboxEntry,
})
const dead = (_: string, work: () => Promise<void>) => work()
let names = 0
const freshStore = () => storeOf('ines', `journal-${(names += 1)}`)
const idsIn = async (store: Awaited<ReturnType<typeof freshStore>>) => (await store.all()).map((e) => e.entry.id)

test('a page closed before the store had its taps: the next one finds them, in order and once', async () => {
  const storage = storageOf()
  let now = 1000
  const closed = createJournal(storage, 'closed', () => now)
  closed.write([tap('1')])
  now = 999_999
  closed.write([tap('2'), tap('3')])
  const store = await freshStore()
  const next = createJournal(storage, 'next')
  await recover(next, store, dead)
  await recover(next, store, dead)
  expect(await idsIn(store)).toEqual(['1', '2', '3'])
  expect(storage.map.size).toBe(0)
})

test('what the store had already is not put there again; struck out, it is not found at all', async () => {
  const storage = storageOf()
  const closed = createJournal(storage, 'closed')
  const strike = closed.write([tap('1')])
  closed.write([tap('2')])
  const store = await freshStore()
  await store.add([tap('2')])
  strike()
  await recover(createJournal(storage, 'next'), store, dead)
  expect(await idsIn(store)).toEqual(['2'])
})

test('a page that lives keeps its own taps in hand', async () => {
  const storage = storageOf()
  createJournal(storage, 'living').write([tap('1')])
  const store = await freshStore()
  await recover(createJournal(storage, 'next'), store, async () => undefined)
  expect(await idsIn(store)).toEqual([])
  expect(storage.map.size).toBe(1)
})

test('full, closed or scribbled-in storage is no obstacle', async () => {
  const full: JournalStorage = {
    ...storageOf(),
    setItem: () => {
      throw new DOMException('full', 'QuotaExceededError')
    },
  }
  expect(() => createJournal(full, 'p').write([tap('1')])()).not.toThrow()
  expect(createJournal(undefined, 'p').leftBehind()).toEqual([])
  const scribbled = storageOf(
    new Map([
      ['yielding-saddle-journal 1 1 other', '{"half'],
      ['something else', '[]'],
    ]),
  )
  expect(createJournal(scribbled, 'p').leftBehind()).toEqual([])
})

test('an entry that only memory takes stays written down', async () => {
  const storage = storageOf()
  createJournal(storage, 'closed').write([tap('1')])
  const withoutKey = { ...memoryStore(), add: () => Promise.reject(new Error('no key for this entry')) }
  const store = withFallback(withoutKey, memoryStore())
  await recover(createJournal(storage, 'next'), store, dead)
  expect(await idsIn(store)).toEqual(['1'])
  expect(storage.map.size).toBe(1)
})
