import '@/tests/withoutBroadcast'
import 'fake-indexeddb/auto'
import fc from 'fast-check'
import { createRng, type Rng } from '@/core/base/rng'
import type { OutboxEntry } from '@/server/platform/entry'
import { drain, resume, type SendResult } from './drain'
import { storeOf } from '@/tests/deviceStore'
import { memoryStore, withFallback, type OutboxStore } from './store'

const AUTHOR = 'ines'
const entry = (id: string, author = AUTHOR): OutboxEntry => ({
  id,
  author,
  madeAtMs: 0,
  op: 'appendEvidence',
  setupId: 's',
  row: { kind: 'stature', mm: 1700 },
})
const add = (store: OutboxStore, queue: string, ...ids: string[]) =>
  store.add(ids.map((id) => ({ queue, entry: entry(id) })))
const kept: SendResult = { outcome: 'kept' }
let names = 0
const freshStore = () => storeOf(AUTHOR, `test-${(names += 1)}`)

/** A server that keeps what it is sent once, in the order it came. */
function keepingServer() {
  const stored: string[] = []
  const keep = (id: string): SendResult => {
    if (!stored.includes(id)) stored.push(id)
    return kept
  }
  return { stored, keep }
}

test('what was entered is sent in order and then gone from the device', async () => {
  const store = await freshStore()
  const { stored, keep } = keepingServer()
  await add(store, 'a', '1', '2')
  await add(store, 'b', '3')
  expect(await drain(store, AUTHOR, async ({ id }) => keep(id))).toBe('empty')
  expect(stored).toEqual(['1', '2', '3'])
  expect(await store.all()).toEqual([])
})

test('reads one entry for each entry it sends, however many lie on the device', async () => {
  const name = `test-${(names += 1)}`
  const theirs = await storeOf('bram', name)
  await theirs.add(Array.from({ length: 50 }, (_, i) => ({ queue: 'a', entry: entry(`other-${i}`, 'bram') })))
  const store = await storeOf(AUTHOR, name)
  await add(store, 'a', '1', '2', '3')
  const [all, first] = [jest.spyOn(store, 'all'), jest.spyOn(store, 'first')]
  expect(await drain(store, AUTHOR, async () => kept)).toBe('empty')
  expect(all).not.toHaveBeenCalled()
  expect(first).toHaveBeenCalledTimes(4)
  expect(await store.seqs('bram', ['waiting'])).toHaveLength(50)
})

test('what one author entered is never sent under another', async () => {
  const name = `test-${(names += 1)}`
  await (await storeOf('bram', name)).add([{ queue: 'a', entry: entry('theirs', 'bram') }])
  const store = await storeOf(AUTHOR, name)
  await add(store, 'a', 'mine')
  const { stored, keep } = keepingServer()
  await drain(store, AUTHOR, async ({ id }) => keep(id))
  expect(stored).toEqual(['mine'])
  expect(await store.all()).toEqual([])
  expect(await store.locked()).toEqual(['bram'])
  expect((await (await storeOf('bram', name)).all()).map((e) => e.entry.id)).toEqual(['theirs'])
})

test('a refused entry is stored with its reason and holds nobody up', async () => {
  const store = await freshStore()
  await add(store, 'a', '1', '2')
  expect(
    await drain(store, AUTHOR, async ({ id }) =>
      id === '1' ? { outcome: 'refused', code: 'badRow', say: 'no mark 99' } : kept,
    ),
  ).toBe('empty')
  expect(await store.all()).toMatchObject([{ state: 'refused', say: 'no mark 99', code: 'badRow', entry: { id: '1' } }])
})

test(
  'a fault holds up its own queue only, in order; an entry that always fails is put aside, ' + 'and the rest goes on',
  async () => {
    const store = await freshStore()
    await add(store, 'a', 'a1', 'a2')
    await add(store, 'b', 'b1')
    const { stored, keep } = keepingServer()
    const send = async ({ id }: OutboxEntry): Promise<SendResult> => (id === 'a1' ? { outcome: 'fault' } : keep(id))
    expect(await drain(store, AUTHOR, send)).toBe('later')
    expect(stored).toEqual(['b1'])
    for (let round = 0; round < 3; round++) expect(await drain(store, AUTHOR, send)).toBe('later')
    expect(stored).toEqual(['b1'])
    expect(await drain(store, AUTHOR, send)).toBe('empty')
    expect(stored).toEqual(['b1', 'a2'])
    expect(await store.all()).toMatchObject([{ state: 'refused', code: 'fault', entry: { id: 'a1' } }])
  },
)

test('without network everything waits; the entry under way is sent again', async () => {
  const store = await freshStore()
  await add(store, 'a', '1', '2')
  const { stored, keep } = keepingServer()
  expect(await drain(store, AUTHOR, async () => ({ outcome: 'noNetwork' }))).toBe('noNetwork')
  expect((await store.all()).map((e) => e.state)).toEqual(['waiting', 'waiting'])
  await drain(store, AUTHOR, async ({ id }) => keep(id))
  expect(stored).toEqual(['1', '2'])
})

test('while the studio’s disk is full everything waits, and is sent in order once there is room', async () => {
  const store = await freshStore()
  await add(store, 'a', '1', '2')
  const { stored, keep } = keepingServer()
  for (let i = 0; i < 10; i++) expect(await drain(store, AUTHOR, async () => ({ outcome: 'noRoom' }))).toBe('noRoom')
  expect((await store.all()).map((e) => e.state)).toEqual(['waiting', 'waiting'])
  await drain(store, AUTHOR, async ({ id }) => keep(id))
  expect(stored).toEqual(['1', '2'])
})

test('an ended session marks all as signed out, and signing in again sends it', async () => {
  const store = await freshStore()
  await add(store, 'a', '1', '2')
  expect(await drain(store, AUTHOR, async () => ({ outcome: 'signedOut' }))).toBe('signedOut')
  expect((await store.all()).map((e) => e.state)).toEqual(['signedOut', 'signedOut'])
  const { stored, keep } = keepingServer()
  expect(await drain(store, AUTHOR, async ({ id }) => keep(id))).toBe('empty')
  expect(stored).toEqual([])
  await resume(store, 'bram')
  await resume(store, AUTHOR)
  await drain(store, AUTHOR, async ({ id }) => keep(id))
  expect(stored).toEqual(['1', '2'])
})

test(
  'a device that keeps nothing still sends; what its storage will not take is held in ' + 'memory and told apart',
  async () => {
    const broken: OutboxStore = {
      ...memoryStore(),
      add: () => Promise.reject(new DOMException('full', 'QuotaExceededError')),
    }
    const store = withFallback(broken, memoryStore())
    await add(store, 'a', '1')
    expect((await store.all()).map((e) => store.lasts(e))).toEqual([false])
    const { stored, keep } = keepingServer()
    await drain(store, AUTHOR, async ({ id }) => keep(id))
    expect(stored).toEqual(['1'])
    expect(await store.all()).toEqual([])
  },
)

test('listeners get only what the device itself holds, never an empty list before it was read', async () => {
  const store = await freshStore()
  await add(store, 'a', '1')
  const first = await new Promise<number>((resolve) => store.watch((all) => resolve(all.entries.length)))
  expect(first).toBe(1)
})

/**
 * Four tabs of one device under one lock, tabs that are killed at any moment, a session that ends, a server with
 * faults.
 */
async function hardTrial(random: Rng, words: number, kills: number) {
  const name = `trial-${(names += 1)}`
  const { stored, keep } = keepingServer()
  const faults = new Map<string, number>()
  let signedOutAt = Math.floor(random.uniform() * words * 4)
  let sent = 0
  const killAt = new Set(Array.from({ length: kills }, () => Math.floor(random.uniform() * words * 5)))
  const server = async ({ id }: OutboxEntry): Promise<SendResult> => {
    sent += 1
    if (sent === signedOutAt) return { outcome: 'signedOut' }
    if (random.uniform() < 0.03) return { outcome: 'noNetwork' }
    // One word in twenty meets a fault, the first time or two; half of them are kept all the same and only the answer
    // is lost.
    const before = faults.get(id) ?? 0
    if (Number(id.split('-')[1]) % 20 === 7 && before < 2) {
      faults.set(id, before + 1)
      if (random.uniform() < 0.5) keep(id)
      return { outcome: 'fault' }
    }
    return keep(id)
  }
  class Killed extends Error {}
  /** Sending as a tab does it: when the tab is killed the answer never arrives, and nothing more happens in it. */
  const tabSends = async (one: OutboxEntry): Promise<SendResult> => {
    const answer = await server(one)
    if (killAt.delete(sent)) throw new Killed()
    return answer
  }
  const stores = await Promise.all([1, 2, 3, 4].map(() => storeOf(AUTHOR, name)))
  let killed = 0
  let entered = 0
  for (let step = 0; entered < words * 4 || (await stores[0].all()).length > 0; step++) {
    const tab = step % 4
    const batch = Math.min(1 + Math.floor(random.uniform() * 12), words * 4 - entered)
    if (batch > 0)
      await add(
        stores[tab],
        `q${tab}`,
        ...Array.from({ length: batch }, (_, i) => `${tab}-${String(entered + i).padStart(4, '0')}`),
      )
    entered += batch
    try {
      if ((await drain(stores[tab], AUTHOR, tabSends)) === 'signedOut') signedOutAt = -1
      await resume(stores[tab], AUTHOR)
    } catch (error) {
      if (!(error instanceof Killed)) throw error
      killed += 1
      // The tab is opened again.
      stores[tab] = await storeOf(AUTHOR, name)
    }
    if (step > 5000) throw new Error('never done')
  }
  return { stored, killed }
}

test(
  'four tabs, two hundred words each, twenty kills, an ended session, a fault at one word ' +
    'in twenty: nothing lost, nothing twice, order kept',
  async () => {
    const { stored, killed } = await hardTrial(createRng(7), 200, 20)
    expect(stored).toHaveLength(800)
    expect(new Set(stored).size).toBe(800)
    for (const tab of ['0', '1', '2', '3']) {
      const order = stored.filter((id) => id.startsWith(`${tab}-`))
      expect(order).toEqual([...order].sort())
    }
    expect(killed).toBeGreaterThan(15)
  },
)

test('the same holds whatever the chances, with fewer words', async () => {
  await fc.assert(
    fc.asyncProperty(fc.integer(), async (seed) => {
      const { stored } = await hardTrial(createRng(seed), 12, 4)
      expect(new Set(stored).size).toBe(48)
      expect(stored).toHaveLength(48)
    }),
    { numRuns: 10 },
  )
})
