/** @jest-environment node */
import iconv from 'iconv-lite'
import { eq } from 'drizzle-orm'
import { formatFileFault } from '@/core/messages/studio/files'
import { guessColumns } from '@/core/setups/openFiles/columns'
import type { Scope } from '@/server/platform/accounts/scope'
import { closeDatabase, database, withTransaction } from '@/server/platform/db/connection'
import { withLease } from '@/server/platform/lease/lease'
import { registerEntry } from '@/server/setups/tables'
import { member } from '@/server/riders/tables'
import { memberListStream } from '@/server/files/exportMembers'
import { columnsFrom, previewList } from '@/server/files/files'
import { checkMembers, importMembers } from '@/server/files/importMembers'
import { linesOf, recognizeList } from '@/server/files/list'
import { sampleList } from '@/server/files/sampleList'
import { findUpload, storeUpload, removeUpload, type Upload } from '@/server/files/uploads'
import { addMember } from '@/server/riders/members/members'
import { findByWords } from '@/server/riders/members/words'
import { appendEvidence, finishSetup, listEvidence } from '@/server/setups/evidence'
import { startSetup } from '@/server/setups/setups'
import { currentEntries, newEntryOf, recordEntry } from '@/server/setups/register'

jest.mock('@/server/classes/calendar/readInThread', () => jest.requireActual('../support/calendarHere'))

const db = database()
const scope: Scope = { studioId: 'netloft-hall', userId: 'ines-harrow', role: 'manager' }
const now = new Date()
const going = new AbortController().signal
const tag = crypto.randomUUID().slice(0, 6)

afterAll(closeDatabase)

const streamOf = (bytes: Uint8Array) => new Blob([bytes as never]).stream() as ReadableStream<Uint8Array>
async function kept(text: string | Buffer): Promise<Upload> {
  const result = await storeUpload(scope, streamOf(Buffer.from(text)), null)
  if (result.outcome !== 'kept') throw new Error(result.why)
  return result.upload
}
async function asked(text: string | Buffer) {
  const upload = await kept(text)
  const preview = await previewList(upload)
  if (typeof preview === 'string') throw new Error(preview)
  return { upload, format: preview.format, columns: preview.columns }
}
const check = async (text: string | Buffer) => checkMembers(db, scope, await asked(text), now, () => undefined, going)
const bringIn = async (text: string | Buffer, signal = going) =>
  importMembers(db, scope, await asked(text), now, () => undefined, signal)
const counts = async () => [
  await db.$count(member, eq(member.studioId, scope.studioId)),
  await db.$count(registerEntry, eq(registerEntry.studioId, scope.studioId)),
]

const HEAD = 'name,bike type,purpose,seat height,seat slide,bar height,bar slide,how sure,sole mm,pedal,since'
const list = (...lines: string[]) => [HEAD, ...lines].join('\r\n')

test('a list is brought in whole, with how sure and how old; once more changes nothing', async () => {
  const text = list(
    `"Marram, Ada ${tag}",Sorrel,usual,7½,C,5,2,measured,12,cleat,2025-03-01`,
    `"Marram, Ada ${tag}",Bracken,usual,J,1,4,,told,,,`,
    `Bo Pryde ${tag},,,,,,,,,,`,
  ).replace('7½', '7')
  expect(await check(text)).toEqual({
    outcome: 'fits',
    tally: {
      lines: 3,
      newMembers: 2,
      existingMembers: 0,
      newNumbers: 2,
      changedNumbers: 0,
      sameNumbers: 0,
      changedDetails: 0,
      overtaken: 0,
      alike: [],
    },
  })
  const before = await counts()
  expect(await bringIn(text)).toMatchObject({ outcome: 'kept' })
  const after = await counts()
  expect(after).toEqual([before[0] + 2, before[1] + 2])
  const [{ id }] = await findByWords(db, scope, `ada ${tag}`, 2)
  expect((await currentEntries(db, scope, [id])).find(({ lineId }) => lineId === 'sorrel')).toMatchObject({
    source: 'imported',
    certainty: 'measured',
    marks: { seatHeight: '7', seatSlide: 'C', barHeight: '5', barSlide: '2' },
    footwear: { soleMm: 12, pedal: 'cleat' },
    sinceAt: new Date('2025-03-01T12:00:00Z'),
  })
  expect(await bringIn(text)).toEqual({
    outcome: 'kept',
    tally: {
      lines: 3,
      newMembers: 0,
      existingMembers: 2,
      newNumbers: 0,
      changedNumbers: 0,
      sameNumbers: 2,
      changedDetails: 0,
      overtaken: 0,
      alike: [],
    },
  })
  expect(await counts()).toEqual(after)
})

test('first and last names, number, e-mail and height: stored, found by the number, corrected by a list', async () => {
  const heads = 'First name;Surname;Member No;E-mail;Height;Locker'
  const of = (height: string, email: string) =>
    `${heads}\nZula;Sorley ${tag};N-${tag};${email};${height};4\nZula;Sorley ${tag};M-${tag};;5'6;5\n`
  const tally = (some: object) => ({ outcome: 'kept', tally: expect.objectContaining(some) as object })
  expect(await bringIn(of('1,68', 'ada@example.org'))).toEqual(tally({ newMembers: 2, changedDetails: 0 }))
  const rows = await db
    .select({ number: member.number, email: member.email, statureMm: member.statureMm })
    .from(member)
    .where(eq(member.name, `Zula Sorley ${tag}`))
    .orderBy(member.number)
  expect(rows).toEqual([
    { number: `M-${tag}`, email: null, statureMm: 1676 },
    { number: `N-${tag}`, email: 'ada@example.org', statureMm: 1680 },
  ])
  expect(await bringIn(of('170', 'ada@example.net'))).toEqual(
    tally({ newMembers: 0, existingMembers: 2, changedDetails: 1 }),
  )
  const other = await check(`name,member number\nBo Sorley ${tag},n-${tag}`)
  if (other.outcome !== 'faulty') throw new Error(other.outcome)
  expect(other.faults.map(formatFileFault)).toEqual([`Line 2, member number: this number is Zula Sorley ${tag}’s.`])
})

test('a height from a list opens the first set-up, and is not added again once one was measured', async () => {
  await bringIn(`name,body height\nCarn Tavy ${tag},181 cm`)
  const [{ id: memberId }] = await findByWords(db, scope, `carn ${tag}`, 1)
  const statures = async (bikeId: string) => {
    const started = await startSetup(db, scope, { id: crypto.randomUUID(), memberId, bikeId }, now)
    if (started.outcome !== 'kept') throw new Error(started.outcome)
    const rows = await listEvidence(db, scope, started.id)
    return { id: started.id, mm: rows.flatMap(({ row }) => (row.kind === 'stature' ? [row.mm] : [])) }
  }
  const first = await statures('bike-1')
  expect(first.mm).toEqual([1810])
  const marks = { seatHeight: '7', seatSlide: 'C', barHeight: '5', barSlide: '2' }
  await withTransaction(db, async (tx) => {
    const content = { id: crypto.randomUUID(), row: { kind: 'stature' as const, mm: 1790 } }
    await appendEvidence(tx, scope, first.id, content, now)
    expect(await finishSetup(tx, scope, first.id, { id: crypto.randomUUID(), marks }, now)).toEqual({ outcome: 'kept' })
  })
  expect((await statures('bike-2')).mm).toEqual([])
})

test('what goes out comes back: exported and brought in again, nothing is new', async () => {
  await bringIn(list(`=Cell ${tag},Meadowsweet,road,-1,0,2,-3,translated,,,2026-01-31`))
  const out = await new Response(await memberListStream(db, scope)).text()
  expect(out.split('\r\n')[0]).toBe(`member id,member number,name,e-mail,body height,${HEAD.replace('name,', '')}`)
  expect(out).toContain(`,,'=Cell ${tag},,,Meadowsweet,road,-1,0,2,-3,translated,,,2026-01-31\r\n`)
  const before = await counts()
  expect(await bringIn(out)).toMatchObject({
    outcome: 'kept',
    tally: { newMembers: 0, newNumbers: 0, changedNumbers: 0 },
  })
  expect(await counts()).toEqual(before)
  expect(await new Response(await memberListStream(db, scope)).text()).toBe(out)
})

test('one fault anywhere, and nothing is written; each is reported by its line and column', async () => {
  await addMember(db, scope, { id: crypto.randomUUID(), name: `Twin ${tag}` }, now)
  await addMember(db, scope, { id: crypto.randomUUID(), name: `Twin ${tag}` }, now)
  const before = await counts()
  const text = list(
    `Fine ${tag},Sorrel,usual,7,C,5,2,,,,`,
    `Fine ${tag},Sorrel,usual,8,C,5,2,,,,`,
    `Off ${tag},Sorrel,usual,77,C,5,2,,,,`,
    `Short ${tag},Sorrel`,
    `Twin ${tag},,,,,,,,,,`,
  )
  const found = await bringIn(text)
  expect(found).toMatchObject({ outcome: 'faulty', count: 4 })
  expect(found.outcome === 'faulty' && found.faults.map(formatFileFault)).toEqual([
    'Line 3, seat height: line 2 has other numbers for the same person and type.',
    expect.stringMatching(/^Line 4, seat height: Sorrel has no 77 here/),
    'Line 5: 2 cells, where the first line has 11.',
    'Line 6, name: several members have this name; add the member number or id.',
  ])
  expect(await counts()).toEqual(before)
})

test('by their id somebody is found whatever they share; an id of nobody or of another is reported', async () => {
  const [{ id }] = await findByWords(db, scope, 'Maren', 1)
  const head = `member id,${HEAD}`
  const line = (memberId: string, name: string) => `${memberId},${name},,,,,,,,,,`
  expect(await check([head, line(id, 'Maren Tolle')].join('\n'))).toMatchObject({ tally: { existingMembers: 1 } })
  const found = await check([head, line(id, 'Somebody Else'), line('nobody-here', 'X')].join('\n'))
  expect(found.outcome === 'faulty' && found.faults.map(formatFileFault)).toEqual([
    'Line 2, name: this id is Maren Tolle here.',
    'Line 3, member id: nobody here has this id; leave it empty for somebody new.',
  ])
})

test('a list cut short in a quoted cell is reported, and nothing is written', async () => {
  const before = await counts()
  const found = await bringIn(list(`Whole ${tag},,,,,,,,,,`, `"Cut ${tag},,,`))
  expect(found).toMatchObject({ outcome: 'faulty' })
  expect(found.outcome === 'faulty' && formatFileFault(found.faults.at(-1)!)).toMatch(/never closed.*cut short/)
  expect(await counts()).toEqual(before)
})

test('stopped half-way, nothing is there of it', async () => {
  const before = await counts()
  const stop = new AbortController()
  const many = list(...Array.from({ length: 1200 }, (_, i) => `Stopped ${tag} ${i},,,,,,,,,,`))
  const found = await importMembers(db, scope, await asked(many), now, () => stop.abort(), stop.signal)
  expect(found).toEqual({ outcome: 'stopped' })
  expect(await counts()).toEqual(before)
})

test('two of the same at once: one is brought in, the other has to wait, and nobody is there twice', async () => {
  const text = list(`At Once ${tag},Sorrel,usual,7,C,5,2,,,,`)
  const second: unknown[] = []
  // The second comes when the first has written all and nothing of it is there yet.
  const first = await importMembers(
    db,
    scope,
    await asked(text),
    now,
    () => undefined,
    going,
    async () => {
      second.push(await bringIn(text))
    },
  )
  expect([first.outcome, second]).toEqual(['kept', [{ outcome: 'busy' }]])
  expect(await findByWords(db, scope, `once ${tag}`, 5)).toHaveLength(1)
  // Done, stopped or failed, the way is free again.
  expect(await bringIn(text)).toMatchObject({ outcome: 'kept', tally: { newMembers: 0 } })
})

test('while a list is brought in others write what they like, and what they set meanwhile holds', async () => {
  const text = list(`Meanwhile ${tag},Sorrel,usual,7,C,5,2,,,,`)
  await bringIn(text)
  const [{ id: memberId }] = await findByWords(db, scope, `meanwhile ${tag}`, 1)
  const changed = list(`Meanwhile ${tag},Sorrel,usual,8,C,5,2,,,,`, `Beside ${tag},,,,,,,,,,`)
  const [entry] = await currentEntries(db, scope, [memberId])
  // All is read and nothing is done: were anything of the studio locked, this would wait for the import, and it for us.
  const meanwhile = async () => {
    const set = { ...newEntryOf(entry), id: crypto.randomUUID(), marks: { ...entry.marks, seatHeight: '9' } }
    const kept = await withTransaction(db, (tx) => recordEntry(tx, scope, set, new Date()))
    expect(kept).toMatchObject({ outcome: 'kept' })
    await addMember(db, scope, { id: crypto.randomUUID(), name: `Walk-in ${tag}` }, new Date())
  }
  const none = () => undefined
  const found = await importMembers(db, scope, await asked(changed), now, none, going, meanwhile)
  expect(found).toMatchObject({ outcome: 'kept', tally: { changedNumbers: 1, overtaken: 1 } })
  expect((await currentEntries(db, scope, [memberId]))[0].marks.seatHeight).toBe('9')
})

test('names that differ in capitals only are reported, and each is a member of their own', async () => {
  await bringIn(list(`Capitals ${tag},,,,,,,,,,`))
  const found = await check(list(`CAPITALS ${tag.toUpperCase()},,,,,,,,,,`))
  expect(found).toMatchObject({ outcome: 'fits', tally: { newMembers: 1, alike: [{ there: `Capitals ${tag}` }] } })
})

test('a lease whose holder is gone ends on its own, and one that was lost keeps nothing', async () => {
  let clock = new Date('2027-01-01T00:00:00Z')
  const tick = () => clock
  const first = withLease(
    db,
    scope,
    'trial',
    async (hold) => {
      expect(await withLease(db, scope, 'trial', async () => 'second', tick)).toEqual({ outcome: 'busy' })
      clock = new Date(clock.getTime() + 61_000)
      expect(await withLease(db, scope, 'trial', async () => 'third', tick)).toBe('third')
      await withTransaction(db, hold)
    },
    tick,
  )
  await expect(first).rejects.toThrow('was lost')
  expect(await withLease(db, scope, 'trial', async () => 'free', tick)).toBe('free')
})

test.each([
  [',', 'utf-8'],
  [';', 'windows-1252'],
  ['\t', 'utf-16le'],
  ['|', 'utf-8'],
])('parted by %j, in %s', async (delimiter, encoding) => {
  const text = [`Rider${delimiter}Note`, `Pål Ærø${delimiter}"a, b; c"`, `Ünal Müller${delimiter}x`].join('\n')
  const bom = encoding === 'utf-16le' ? [0xff, 0xfe] : []
  const upload = await kept(Buffer.concat([Buffer.from(bom), iconv.encode(text, encoding)]))
  const format = await recognizeList(upload.path)
  expect(format.delimiter).toBe(delimiter)
  const lines: (readonly string[])[] = []
  for await (const found of linesOf(upload.path, format)) if (found.outcome === 'line') lines.push(found.cells)
  expect(lines).toEqual([
    ['Rider', 'Note'],
    ['Pål Ærø', 'a, b; c'],
    ['Ünal Müller', 'x'],
  ])
})

test.each([
  ['packed', Buffer.from([0x50, 0x4b, 3, 4, 0, 0])],
  ['packed', Buffer.from([0x1f, 0x8b, 8, 0])],
  ['binary', Buffer.from([0x89, 0x50, 0x4e, 0x47, 0, 0])],
  ['empty', Buffer.from('  \n')],
])('%s: nothing is kept, and nothing is unpacked', async (why, bytes) => {
  expect(await storeUpload(scope, streamOf(bytes), null)).toEqual({ outcome: 'refused', why })
})

test('a file announced longer than it came, or longer than any, is refused', async () => {
  expect(await storeUpload(scope, streamOf(Buffer.from('name\nx')), 900)).toMatchObject({ why: 'cutShort' })
  expect(await storeUpload(scope, streamOf(Buffer.from('name\nx')), 900_000_000)).toMatchObject({ why: 'tooLarge' })
})

test('a chosen file is nobody else’s, and can be thrown away', async () => {
  const { id } = await kept('name\nx')
  expect(await findUpload(scope, id)).toMatchObject({ kind: 'list' })
  expect(await findUpload({ ...scope, userId: 'bram-okell' }, id)).toBeNull()
  expect(await findUpload(scope, '../../etc')).toBeNull()
  await removeUpload(scope, id)
  expect(await findUpload(scope, id)).toBeNull()
})

test('columns are what the user chooses: one holds the names, none occurs twice', () => {
  expect(columnsFrom(['name', null, 'seatHeight'])).toEqual(['name', null, 'seatHeight'])
  expect(columnsFrom(['seatHeight'])).toBe('noName')
  expect(columnsFrom(['name', 'name'])).toBe('twice')
  expect(columnsFrom('name')).toBe('noName')
  expect(guessColumns(HEAD.split(','))).not.toContain(null)
})

test('the sample list is read as it is, with no fault in its columns', async () => {
  const sample = await sampleList(db, scope)
  const { columns } = await asked(sample)
  expect(columns).not.toContain(null)
  const found = await check(sample)
  expect(found.outcome === 'faulty' ? found.faults.map(formatFileFault) : []).toEqual([])
  expect(found).toMatchObject({ outcome: 'fits', tally: { lines: 3, newMembers: 3, newNumbers: 2 } })
})

test('a list of headings alone is reported', async () => {
  expect(await previewList(await kept(`${HEAD}\r\n`))).toBe('noLines')
})
