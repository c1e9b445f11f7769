/** @jest-environment node */
import type { Evidence } from '@/core/evidence/evidence'
import { note, sit, unnote } from '@/interface/floor/actions'
import { add } from '@/interface/members/actions'
import { begin, keep, rowsNow, save, withdraw } from '@/interface/setup/actions'
import { closeDatabase, database } from '@/server/db/connection'
import { notesOn, seatedOn } from '@/server/notes/notes'
import { savedSetups, setupById } from '@/server/setups/setups'
import { studioDay } from '@/server/studio/day'

/** Who is signed in is the session's business; here it is always the same instructor, or nobody. */
let nobody = false
jest.mock('@/server/accounts/session', () => ({
  signedIn: async () => {
    if (nobody) throw new Error('sent to sign in')
    return { id: 'bram-okell', name: 'Bram Okell' }
  },
}))

const db = database()
const id = () => crypto.randomUUID()
const row: Evidence = { kind: 'kneeByEye', seen: 'slightBend', at: { seatHeight: '7', seatSlide: 'D' } }
const marks = { seatHeight: '7', seatSlide: 'D', barHeight: '8', barSlide: '3' }

async function member(): Promise<string> {
  const added = await add(id(), `Action ${id().slice(0, 8)}`, false)
  if (added.outcome !== 'added') throw new Error(added.say)
  return added.id
}

afterAll(closeDatabase)
beforeEach(() => {
  nobody = false
})

test('adding: spaces are tidied, empty and endless names refused in words, the same name asked about', async () => {
  const name = `Tidy ${id().slice(0, 8)}`
  expect(await add(id(), `  ${name.replace(' ', '   ')} `, false)).toMatchObject({ outcome: 'added' })
  expect(await add(id(), name, false)).toEqual({ outcome: 'sameName', say: `There is already a ${name}. Add another one of that name?` })
  expect(await add(id(), name, true)).toMatchObject({ outcome: 'added' })
  expect(await add(id(), '   ', false)).toEqual({ outcome: 'refused', say: 'A member needs a name.' })
  expect(await add(id(), 'x'.repeat(200), false)).toMatchObject({ outcome: 'refused' })
  expect(await add('not an id', name, true)).toMatchObject({ outcome: 'refused' })
})

test('adding twice under one id, as after a lost answer, adds once', async () => {
  const [one, name] = [id(), `Once ${id().slice(0, 8)}`]
  expect(await add(one, name, false)).toEqual({ outcome: 'added', id: one })
  expect(await add(one, name, false)).toEqual({ outcome: 'added', id: one })
})

test('beginning again at the same bike takes up what was left open; unknown people and bikes begin nothing', async () => {
  const rider = await member()
  const first = await begin(rider, 'bike-1')
  expect(await begin(rider, 'bike-1')).toBe(first)
  expect(await begin(rider, 'bike-2')).not.toBe(first)
  expect(await begin('nobody', 'bike-1')).toBeNull()
  expect(await begin(rider, 'bike-99')).toBeNull()
})

test('rows are held to the wire format and to the bike’s own marks, and told in words', async () => {
  const setupId = (await begin(await member(), 'bike-1'))!
  expect(await keep(setupId, id(), row)).toEqual({ outcome: 'kept' })
  expect(await keep(setupId, id(), { ...row, at: { seatHeight: '99' } })).toEqual({ outcome: 'refused', say: 'the seat height has no mark 99; the nearest are 15 and 14' })
  expect(await keep(setupId, id(), { kind: 'stature', mm: 17_000 })).toEqual({ outcome: 'refused', say: 'mm is out of range: at most 2500 is possible' })
  expect(await keep(setupId, id(), { kind: 'wish', posture: 'low' } as unknown as Evidence)).toMatchObject({ outcome: 'refused' })
  expect(await keep('none', id(), row)).toMatchObject({ outcome: 'refused' })
  expect((await rowsNow(setupId)).map((r) => r.row)).toEqual([row])
})

test('labels are kept as the scale spells them', async () => {
  const setupId = (await begin(await member(), 'bike-3'))!
  await keep(setupId, id(), { kind: 'set', at: { seatHeight: '+2.50' } })
  expect((await rowsNow(setupId))[0].row.at).toEqual({ seatHeight: '2.5' })
})

test('saving needs every mark; saved twice it is saved once; afterwards nothing is added or taken back', async () => {
  const rider = await member()
  const setupId = (await begin(rider, 'bike-1'))!
  const look = id()
  await keep(setupId, look, row)
  expect(await save(setupId, id(), { seatHeight: '7' })).toEqual({ outcome: 'refused', say: 'not every scale has its mark yet' })
  expect(await save(setupId, id(), { ...marks, seatSlide: 'Z' })).toMatchObject({ outcome: 'refused' })
  const numbers = id()
  expect(await save(setupId, numbers, marks)).toEqual({ outcome: 'kept' })
  expect(await save(setupId, numbers, marks)).toEqual({ outcome: 'kept' })
  expect(await savedSetups(db, rider)).toMatchObject([{ marks, by: 'Bram Okell' }])
  expect(await keep(setupId, id(), row)).toMatchObject({ outcome: 'refused' })
  expect(await withdraw(setupId, look)).toMatchObject({ outcome: 'refused' })
  expect((await setupById(db, setupId))?.finishedAt).not.toBeNull()
})

test('who sits where holds for the studio’s day; unknown bikes and members are refused', async () => {
  const rider = await member()
  const today = studioDay(new Date(), 'Europe/Oslo')
  expect(await sit(id(), 'bike-5', rider)).toEqual({ outcome: 'kept' })
  expect((await seatedOn(db, today)).find((s) => s.bikeId === 'bike-5')?.memberId).toBe(rider)
  expect(await sit(id(), 'bike-5', null)).toEqual({ outcome: 'kept' })
  expect((await seatedOn(db, today)).find((s) => s.bikeId === 'bike-5')).toBeUndefined()
  expect(await sit(id(), 'bike-77', rider)).toMatchObject({ outcome: 'refused' })
  expect(await sit(id(), 'bike-5', 'nobody')).toMatchObject({ outcome: 'refused' })
})

test('a note keeps its region, side and author; unknown signs and sides are refused; taken back it is gone', async () => {
  const rider = await member()
  const made = id()
  expect(await note(made, rider, 'bike-2', 'kneesOut', 'left')).toEqual({ outcome: 'kept' })
  expect(await notesOn(db, rider)).toMatchObject([{ region: 'knees', sign: 'kneesOut', side: 'left', by: 'Bram Okell' }])
  expect(await note(id(), rider, 'bike-2', 'levitating', 'left')).toMatchObject({ outcome: 'refused' })
  expect(await note(id(), rider, 'bike-2', 'kneesOut', 'up' as 'left')).toMatchObject({ outcome: 'refused' })
  await unnote(made)
  expect(await notesOn(db, rider)).toEqual([])
})

test('signed out, no action does anything', async () => {
  nobody = true
  for (const act of [() => add(id(), 'X', true), () => begin('member-01', 'bike-1'), () => keep('a', 'b', row), () => withdraw('a', 'b'), () => save('a', 'b', marks), () => sit(id(), 'bike-1', null), () => note(id(), 'member-01', 'bike-1', 'kneesOut', 'left'), () => unnote('a'), () => rowsNow('a')]) {
    await expect(act()).rejects.toThrow('sent to sign in')
  }
})
