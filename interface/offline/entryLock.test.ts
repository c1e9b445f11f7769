import '@/tests/withoutBroadcast'
import 'fake-indexeddb/auto'
import Dexie from 'dexie'
import { keyOf, storeOf } from '@/tests/deviceStore'
import type { OutboxEntry } from '@/server/platform/entry'
import { openStore } from './store'

const WORDS = 'numb left hand'
const entry = (id: string, author = 'ines') =>
  ({ id, author, madeAtMs: 0, op: 'note', classId: 'c', words: WORDS }) as unknown as OutboxEntry
const added = (id: string, author?: string) => [{ queue: 'a', entry: entry(id, author) }]
const noKey = async () => null
let names = 0
const freshName = () => `lock-${(names += 1)}`

/** Every row of a device's database, as text. */
async function textOn(name: string): Promise<string> {
  const db = await new Dexie(name).open()
  const tables = await Promise.all(db.tables.map((table) => table.toArray()))
  db.close()
  const bytes = (value: unknown): unknown =>
    value instanceof ArrayBuffer || ArrayBuffer.isView(value)
      ? Buffer.from(value as ArrayBuffer).toString('latin1')
      : value
  return JSON.stringify(tables, (_, value) => bytes(value))
}

test('a device stores no word of an entry, and its author reads it', async () => {
  const name = freshName()
  const store = await storeOf('ines', name)
  await store.add(added('1'))
  expect(await store.all()).toMatchObject([{ state: 'waiting', entry: entry('1') }])
  const text = await textOn(name)
  expect(text).toContain('"id":"1"')
  expect(text).not.toContain(WORDS)
  expect(text).not.toContain('note')
})

test('after sign-out the rows stay closed until the author has signed in again', async () => {
  const name = freshName()
  const store = await storeOf('ines', name)
  await store.add(added('1'))
  await store.forgetKey()
  const signedOut = await openStore('ines', name, noKey)
  expect(await signedOut.all()).toEqual([])
  expect(await signedOut.locked()).toEqual(['ines'])
  expect(await signedOut.first('ines', ['waiting'])).toBeUndefined()
  expect(await (await storeOf('ines', name)).all()).toMatchObject([{ entry: entry('1') }])
})

test('a page without network opens entries with the key that is stored', async () => {
  const name = freshName()
  await (await storeOf('ines', name)).add(added('1'))
  const offline = await openStore('ines', name, () => Promise.reject(new TypeError('no network')))
  expect(await offline.all()).toMatchObject([{ entry: entry('1') }])
})

test('another person’s page removes the key, and neither opens nor sends the entries', async () => {
  const name = freshName()
  await (await storeOf('ines', name)).add(added('1'))
  const theirs = await storeOf('bram', name)
  expect(await theirs.all()).toEqual([])
  expect(await theirs.locked()).toEqual(['ines'])
  await theirs.add(added('2', 'bram'))
  expect(await (await openStore('ines', name, noKey)).locked()).toEqual(['ines', 'bram'])
})

test('a page whose session ended removes its own key, and not that of the person signed in since', async () => {
  const name = freshName()
  const stale = await storeOf('ines', name)
  await stale.add(added('1'))
  await (await storeOf('bram', name)).add(added('2', 'bram'))
  await stale.forgetKey()
  expect((await (await openStore('bram', name, noKey)).all()).map((one) => one.entry.id)).toEqual(['2'])
})

test('without a key an entry stays in memory, and is known not to last', async () => {
  const store = await openStore('ines', freshName(), noKey)
  await store.add(added('1'))
  const [only] = await store.all()
  expect(only.entry).toEqual(entry('1'))
  expect(store.lasts(only)).toBe(false)
})

test('a key that comes later opens what is watched', async () => {
  const name = freshName()
  await (await storeOf('ines', name)).add(added('1'))
  await (await storeOf('ines', name)).forgetKey()
  let key: Uint8Array<ArrayBuffer> | null = null
  const store = await openStore('ines', name, async () => key)
  const seen: number[] = []
  const opened = new Promise<void>((resolve) => {
    store.watch(({ entries, locked }) => {
      seen.push(locked.length)
      if (entries.length === 1) resolve()
    })
  })
  expect(await store.hasKey()).toBe(false)
  key = await keyOf('ines')
  expect(await store.hasKey()).toBe(true)
  await opened
  expect(seen.at(-1)).toBe(0)
})

test('rows under another key of the author can be removed, the others stay', async () => {
  const name = freshName()
  await (await storeOf('ines', name)).add(added('1'))
  await (await storeOf('ines', name)).forgetKey()
  const store = await openStore('ines', name, () => keyOf('another'))
  await store.add(added('2'))
  expect(await store.locked()).toEqual(['ines'])
  expect((await store.first('ines', ['waiting']))?.entry.id).toBe('2')
  await store.removeLocked()
  expect(await store.locked()).toEqual([])
  expect((await store.all()).map((one) => one.entry.id)).toEqual(['2'])
})

test('a changed row does not open: its author and id are part of what is authenticated', async () => {
  const name = freshName()
  await (await storeOf('ines', name)).add(added('1'))
  const db = await new Dexie(name).open()
  await db
    .table('entries')
    .toCollection()
    .modify({ entry: { id: 'x', author: 'ines' } })
  db.close()
  expect(await (await storeOf('ines', name)).all()).toEqual([])
})

test('entries of an earlier version are read, and locked when their author comes', async () => {
  const name = freshName()
  const old = new Dexie(name)
  old.version(2).stores({ entries: '++seq, &entry.id, [entry.author+state]' })
  await old.open()
  const plain = { queue: 'a', state: 'waiting', attempts: 0, say: '', code: '' }
  await old.table('entries').bulkAdd([
    { ...plain, entry: entry('1') },
    { ...plain, entry: entry('2', 'bram') },
  ])
  old.close()
  const store = await storeOf('ines', name)
  expect((await store.all()).map((one) => one.entry.id)).toEqual(['1'])
  await new Promise<void>((resolve) => {
    const look = async () => ((await textOn(name)).match(/"locked"/g) ? resolve() : setTimeout(look, 5))
    void look()
  })
  expect(await store.all()).toMatchObject([{ entry: entry('1') }])
})
