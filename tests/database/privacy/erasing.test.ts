/** @jest-environment node */
import { count, eq, getTableName, sql } from 'drizzle-orm'
import { mkdtempSync, appendFileSync, readFileSync } from 'node:fs'
import { execFileSync } from 'node:child_process'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { describeMemberFile } from '@/core/messages/riders/memberFile'
import { runCommand } from '@/server/commands/runCommand'
import type { Scope } from '@/server/platform/accounts/scope'
import { closeDatabase, type Database } from '@/server/platform/db/connection'
import { plainShapeOf } from '@/server/platform/sealing/sealed'
import { COLUMN_KINDS, columnKind, COMMON_COLUMNS, OPEN_HEALTH_COLUMNS } from '@/server/privacy/columns'
import { commandReceipt } from '@/server/platform/receipts/tables'
import { settleErasures } from '@/server/privacy/erasureFile'
import { memberFile } from '@/server/privacy/memberFile'
import { memberFileResponse } from '@/server/privacy/memberFileResponse'
import { MEMBER_TABLES } from '@/server/privacy/memberRows'
import { addMember, findMember } from '@/server/riders/members/members'
import { erasure, member } from '@/server/riders/tables'
import type { EmptyStudio } from '@/scripts/support/emptyStudio'
import { openHallCopy } from '../support/hallCopy'
import { mergeMembers } from '@/server/commands/useCases/mergeMembers'

let copy: EmptyStudio
let db: Database
let scope: Scope
const id = () => crypto.randomUUID()
const now = new Date('2004-08-02T17:00:00Z')
const send = (name: string, input: object, by: Scope = scope) => runCommand(db, by, { name, id: id(), input }, now)

beforeAll(async () => {
  copy = await openHallCopy('erasing')
  ;({ db, scope } = copy)
})
afterAll(async () => {
  await copy.close()
  await closeDatabase()
})

type Column = Readonly<{ table: string; name: string }>
async function columnsOfDatabase(): Promise<Column[]> {
  const [rows] = (await db.execute(
    sql`SELECT TABLE_NAME AS \`table\`, COLUMN_NAME AS name FROM information_schema.COLUMNS
      WHERE TABLE_SCHEMA = DATABASE() ORDER BY 1, 2`,
  )) as unknown as [Column[]]
  return rows
}

test('every column of the database is health data, identity or neither; no entry is without its column', async () => {
  const columns = await columnsOfDatabase()
  expect(columns.length).toBeGreaterThan(300)
  expect(columns.filter(({ table, name }) => columnKind(table, name) === null)).toEqual([])
  expect(columnKind('member', 'not_there')).toBeNull()
  const there = new Set(columns.map(({ table, name }) => `${table}.${name}`))
  const listed = Object.entries(COLUMN_KINDS).flatMap(([table, kinds]) =>
    Object.values(kinds).flatMap((names) => names.map((name) => `${table}.${name}`)),
  )
  expect(listed.filter((name) => !there.has(name))).toEqual([])
  expect(new Set(listed).size).toBe(listed.length)
  expect(listed.filter((name) => COMMON_COLUMNS.includes(name.split('.')[1]))).toEqual([])
})

test('every health column is sealed, or is one of the codes and measures that the database counts', async () => {
  const health = (await columnsOfDatabase()).filter(({ table, name }) => columnKind(table, name) === 'health')
  const open = health
    .filter(({ table, name }) => !plainShapeOf(table, name))
    .map(({ table, name }) => `${table}.${name}`)
  expect(open.sort()).toEqual([...OPEN_HEALTH_COLUMNS].sort())
})

test('every table that names a member is one whose rows are taken out and erased with them', async () => {
  const [rows] = (await db.execute(
    sql`SELECT TABLE_NAME AS name, REFERENCED_TABLE_NAME AS parent FROM information_schema.KEY_COLUMN_USAGE
      WHERE TABLE_SCHEMA = DATABASE()
        AND REFERENCED_TABLE_NAME IN ('member', 'setup', 'evidence', 'trial', 'programme')`,
  )) as unknown as [Readonly<{ name: string; parent: string }>[]]
  const named = [...new Set(rows.map(({ name }) => name)), 'member']
  expect(MEMBER_TABLES.map(({ table }) => getTableName(table)).sort()).toEqual(named.sort())
})

/** The member with rows in most tables, so that much is erased. */
async function richest(): Promise<string> {
  const [rows] = (await db.execute(
    sql`SELECT t.member_id AS id, COUNT(*) AS n FROM trial t JOIN trial_rating r ON r.trial_id = t.id
      JOIN member m ON m.id = t.member_id WHERE m.studio_id = ${scope.studioId}
      GROUP BY 1 ORDER BY n DESC, id LIMIT 1`,
  )) as unknown as [Readonly<{ id: string }>[]]
  return rows[0].id
}
const rowsOf = async (memberId: string) => {
  const counts: Record<string, number> = {}
  for (const { name, table, of } of MEMBER_TABLES)
    counts[name] = (await db.select({ n: count() }).from(table).where(of(db, memberId)))[0].n
  return counts
}
/** Tables in which a text is found anywhere. */
async function tablesWith(text: string): Promise<string[]> {
  const [tables] = (await db.execute(sql`SHOW TABLES`)) as unknown as [Record<string, string>[]]
  const found: string[] = []
  for (const name of tables.map((row) => Object.values(row)[0])) {
    const [rows] = await db.execute(sql`SELECT * FROM ${sql.identifier(name)}`)
    if (JSON.stringify(rows).includes(text)) found.push(name)
  }
  return found
}

test('a member’s file has every row of theirs, by JSON and to read, and no secret', async () => {
  const memberId = await richest()
  const counts = await rowsOf(memberId)
  const file = (await memberFile(db, scope, memberId, now))!
  for (const { name } of MEMBER_TABLES.filter((one) => one.name !== 'memberWords'))
    expect([name, file.rows[name].length]).toEqual([name, counts[name]])
  expect(Object.values(counts).filter((n) => n > 0).length).toBeGreaterThan(6)
  const text = await (await memberFileResponse(db, scope, memberId, 'data.json', now)).text()
  expect(text).not.toMatch(/tokenHash|openKey|"s1\./)
  expect(JSON.parse(text)).toMatchObject({ format: 'yielding-saddle-member', formatVersion: 1 })

  const response = await memberFileResponse(db, scope, memberId, 'data.pdf', now)
  expect(response.headers.get('content-type')).toBe('application/pdf')
  // Read by another library than wrote it (pdfjs-dist), in a process of its own.
  const bytes = Buffer.from(await response.arrayBuffer())
  const read = execFileSync(process.execPath, ['tests/cards/readPdf.mjs'], { input: bytes, maxBuffer: 2e8 })
  const pages = JSON.parse(read.toString()) as { text: string[] }[]
  const words = pages
    .map((page) => page.text.join(' '))
    .join(' ')
    .replace(/\s+/g, ' ')
  const parts = describeMemberFile(file.rows, file.names)
  for (const { title, lines } of parts) {
    expect(words).toContain(title)
    for (const { text: line } of lines) expect(words).toContain(line.split(' ').slice(0, 3).join(' '))
  }
  expect(pages.at(-1)!.text.join(' ')).toContain(`${pages.length} / ${pages.length}`)

  expect(await memberFile(db, { studioId: 'elsewhere' }, memberId, now)).toBeNull()
  expect((await memberFileResponse(db, scope, memberId, 'other.txt', now)).status).toBe(404)
  expect((await memberFileResponse(db, scope, 'nobody', 'data.pdf', now)).status).toBe(404)
})

test('erased is erased: no row, no name, no receipt; others keep theirs; sent again it stays so', async () => {
  const [memberId, merged] = [await richest(), id()]
  const { name } = (await findMember(db, scope, memberId))!
  await addMember(db, scope, { id: merged, name: `Twice ${merged}` }, now)
  await mergeMembers(db, scope, { from: merged, into: memberId }, now)
  const others = async () => (await db.select({ n: count() }).from(member))[0].n
  const before = await others()
  expect(await send('members.eraseMember', { memberId, name: 'Somebody Else' })).toMatchObject({ code: 'otherName' })
  const instructor: Scope = { ...scope, role: 'instructor' }
  expect(await send('members.eraseMember', { memberId, name }, instructor)).toMatchObject({ code: 'notAllowed' })
  const far: Scope = { ...scope, studioId: 'elsewhere' }
  expect(await send('members.eraseMember', { memberId, name }, far)).toMatchObject({ code: 'noSuchMember' })
  expect(await others()).toBe(before)

  expect(await send('members.eraseMember', { memberId, name })).toEqual({ outcome: 'kept' })
  expect(await others()).toBe(before - 1)
  expect(Object.values(await rowsOf(memberId)).reduce((a, b) => a + b)).toBe(0)
  expect(await tablesWith(name)).toEqual([])
  expect(await tablesWith(`Twice ${merged}`)).toEqual([])
  // The receipt of the erasure itself names the id, as the erasure does.
  expect(await tablesWith(memberId)).toEqual(['command_receipt', 'erasure'])
  expect(await tablesWith(merged)).toEqual(['erasure'])
  expect(await send('members.eraseMember', { memberId, name })).toEqual({ outcome: 'kept' })
  expect(await send('members.eraseMember', { memberId: id(), name })).toMatchObject({ code: 'noSuchMember' })
})

test('a name that is a part of every plain answer takes away no receipt of others', async () => {
  const [memberId, other] = [id(), id()]
  await addMember(db, scope, { id: memberId, name: 'kept' }, now)
  await addMember(db, scope, { id: other, name: 'Another Rider' }, now)
  expect(await send('members.giveConsent', { memberId: other, way: 'spoken' })).toEqual({ outcome: 'kept' })
  const receipts = async () =>
    (await db.select({ n: count() }).from(commandReceipt).where(eq(commandReceipt.subject, other)))[0].n
  const before = await receipts()
  expect(before).toBeGreaterThan(0)
  expect(await send('members.eraseMember', { memberId, name: 'kept' })).toEqual({ outcome: 'kept' })
  expect(await receipts()).toBe(before)
})

test('whom a restore brings back is erased again at the start, whatever the file lacks', async () => {
  const folder = mkdtempSync(join(tmpdir(), 'saddle-erasing-'))
  const [one, two] = [id(), id()]
  const add = (memberId: string) => addMember(db, scope, { id: memberId, name: `Restored ${memberId}` }, now)
  for (const memberId of [one, two]) await add(memberId)
  await send('members.eraseMember', { memberId: one, name: `Restored ${one}` })
  // The first start writes down what the database knows.
  expect(await settleErasures(db, folder, now)).toBe(0)
  expect(readFileSync(join(folder, 'erased-members'), 'utf8')).toContain(`${scope.studioId} ${one}\n`)
  // A database of before the erasure: the member is back, and the record of the erasure gone.
  await db.delete(erasure).where(eq(erasure.memberId, one))
  await add(one)
  appendFileSync(join(folder, 'erased-members'), `${scope.studioId} ${two.slice(0, 3)}`)
  expect(await settleErasures(db, folder, now)).toBe(1)
  expect([await findMember(db, scope, one), (await findMember(db, scope, two))?.id]).toEqual([null, two])
  expect(await settleErasures(db, folder, now)).toBe(0)
  expect(await settleErasures(db, undefined, now)).toBe(0)
})
