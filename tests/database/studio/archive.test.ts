/** @jest-environment node */
import Ajv from 'ajv'
import { eq } from 'drizzle-orm'
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { formatArchiveFault, type ArchiveOutcome } from '@/core/messages/studio/archive'
import { openEmptyStudio, type EmptyStudio } from '@/scripts/support/emptyStudio'
import type { Scope } from '@/server/platform/accounts/scope'
import { closeDatabase, database, type Database } from '@/server/platform/db/connection'
import { studio } from '@/server/platform/accounts/tables'
import { archiveText } from '@/server/files/archiveExport'
import { checkArchive, importArchive } from '@/server/files/archiveImport'
import { SECTION_NAMES } from '@/server/files/archiveSections'
import { storeUpload } from '@/server/files/uploads'
import { findByWords } from '@/server/riders/members/words'

const db = database()
const scope: Scope = { studioId: 'netloft-hall', userId: 'ines-harrow', role: 'manager' }
let far: EmptyStudio
let elsewhere: Database
let other: Scope

beforeAll(async () => {
  far = await openEmptyStudio(process.env.DATABASE_URL!, `saddle_archive_${process.pid}`)
  elsewhere = far.db
  other = far.scope
})
afterAll(async () => {
  await db.update(studio).set({ retention: null }).where(eq(studio.id, scope.studioId))
  await far.close()
  await closeDatabase()
})

async function exported(from: Database, of: Scope): Promise<string> {
  let text = ''
  for await (const piece of archiveText(from, of)) text += piece
  return text
}
const going = new AbortController().signal
async function asked(text: string, signal = going) {
  const kept = await storeUpload(other, new Blob([text]).stream() as ReadableStream<Uint8Array>, null)
  if (kept.outcome !== 'kept') throw new Error(kept.why)
  return { upload: kept.upload, progress: () => undefined, signal }
}
const check = async (text: string): Promise<ArchiveOutcome> => checkArchive(elsewhere, other, await asked(text))
const sorted = (value: unknown): unknown =>
  Array.isArray(value)
    ? value.map(sorted)
    : value && typeof value === 'object'
      ? Object.fromEntries(
          Object.entries(value)
            .sort(([a], [b]) => (a < b ? -1 : 1))
            .map(([key, one]) => [key, sorted(one)]),
        )
      : value
const changed = (text: string, change: (archive: Record<string, Record<string, unknown>[]>) => void): string => {
  const archive = JSON.parse(text) as Record<string, Record<string, unknown>[]>
  change(archive)
  return JSON.stringify(archive)
}
const faultsOf = (found: ArchiveOutcome) => (found.outcome === 'faulty' ? found.faults.map(formatArchiveFault) : found)

/** The hall's whole archive, and one of a few of its members: a fault is found in either, in the small one sooner. */
let text: string
let small: string
const RETENTION = { notes: 24, complaints: null, sets: 60 }
/** Sections that came with versions 5 and 6 of the format. */
const SINCE_5 = ['moves', 'limits', 'plans', 'consentWordings', 'consents']
beforeAll(async () => {
  await db.update(studio).set({ retention: RETENTION }).where(eq(studio.id, scope.studioId))
  text = await exported(db, scope)
  small = changed(text, keepFewMembers)
})

/** Leaves a few members, one with a rated trial and some with set-ups; drops every row that refers to a dropped one. */
function keepFewMembers(archive: Record<string, Record<string, unknown>[]>): void {
  const rated = archive.trials.find(({ id }) => id === archive.trialRatings[0].trialId)!.memberId
  const withSetups = archive.setups.slice(0, 3).map(({ memberId }) => memberId)
  const few = new Set([rated, ...withSetups, ...archive.members.slice(0, 7).map(({ id }) => id)])
  const dropped = new Set<unknown>(archive.members.filter(({ id }) => !few.has(id)).map(({ id }) => id))
  for (let before = -1; before !== dropped.size;) {
    before = dropped.size
    for (const name of SECTION_NAMES)
      archive[name] = archive[name].filter((row) => {
        const isDropped = Object.values(row).some((value) => dropped.has(value))
        if (isDropped && typeof row.id === 'string') dropped.add(row.id)
        return !isDropped
      })
  }
}

test('an archive is JSON of the published schema (draft-07, checked by Ajv), with every section', () => {
  const schema = JSON.parse(
    readFileSync(join(process.cwd(), 'docs/schemas/studio-archive.schema.json'), 'utf8'),
  ) as object
  const archive = JSON.parse(text) as Record<string, unknown>
  const validate = new Ajv({ strict: false }).compile(schema)
  expect([validate(archive), validate.errors]).toEqual([true, null])
  expect(archive.studio).toMatchObject([{ retention: RETENTION }])
  expect(Object.keys(archive)).toEqual(['format', 'formatVersion', 'studio', ...SECTION_NAMES])
  // Whoever signs in leaves nothing to sign in with.
  expect(text).not.toMatch(/password|argon2|@netloft-hall/)
})

test.each([
  ['of a later version', (t: string) => t.replace('"formatVersion":9', '"formatVersion":10'), { outcome: 'newer' }],
  ['half-written', (t: string) => t.slice(0, t.length / 2), { outcome: 'unreadable', why: 'cutShort' }],
  ['damaged', (t: string) => t.replace('"members":[', '"members":[,'), { outcome: 'unreadable', why: 'notJson' }],
  ['with something behind it', (t: string) => `${t}{}`, { outcome: 'unreadable', why: 'notJson' }],
  ['of something else', () => '{"format":"other","formatVersion":2}', { outcome: 'otherFormat' }],
] as const)('an archive %s is told, and nothing is written', async (_, change, expected) => {
  expect(await check(change(small))).toMatchObject(expected)
  expect(await importArchive(elsewhere, other, await asked(change(small)))).toMatchObject(expected)
  expect(await findByWords(elsewhere, other, 'maren', 1)).toEqual([])
})

test('what is wrong is reported by section, row and field', async () => {
  const wrong = changed(small, (archive) => {
    archive.members[1].name = 7
    archive.register[0].marks = { seatHeight: '7', seatPost: '3' }
    archive.setups[2].memberId = 'nobody'
    archive.bikes[3].id = archive.bikes[2].id
    archive.extras = []
    delete archive.notes
  })
  const said = faultsOf(await check(wrong))
  expect(said).toEqual(
    expect.arrayContaining([
      'members, row 2, name: must be string.',
      expect.stringMatching(/^register, row 1, marks: must NOT have additional properties/),
      'setups, row 3, memberId: no row of members has this id.',
      'bikes, row 4, id: stands twice.',
      'extras: is no part of an archive.',
      'notes: is missing.',
    ]),
  )
})

test('impossible moments, numbers and names are rejected by row and field, and nothing is written', async () => {
  const wrong = changed(small, (archive) => {
    archive.members[0].createdAt = '2026-02-30T10:00:00.000Z'
    archive.members[1].name = ' '
    archive.members[2].name = ''
    archive.setups[0].startedAt = '0000-01-01T10:00:00.000Z'
    archive.bikePlaces[0].xM = 1e300
    archive.bikes[0].number = -1.5
    archive.bikes[1].number = 0
    archive.trialRatings[0].rating = 11
  })
  const said = faultsOf(await importArchive(elsewhere, other, await asked(wrong)))
  for (const fault of [
    /^members, row 1, createdAt: is no moment there is/,
    /^members, row 2, name: must match pattern/,
    /^members, row 3, name: must NOT have fewer than 1/,
    /^setups, row 1, startedAt: is not within 1900 to 2200/,
    /^bikePlaces, row 1, xM: must be <= 1000000000/,
    /^bikes, row 1, number: must be integer/,
    /^bikes, row 2, number: must be >= 1/,
    /^trialRatings, row 1, rating: must be <= 10/,
  ])
    expect(said).toContainEqual(expect.stringMatching(fault))
  expect(await findByWords(elsewhere, other, 'maren', 1)).toEqual([])
})

test.each([
  ['a version that is text', { formatVersion: '3' }, /must be a number/],
  ['no version', { formatVersion: null }, /must be a number/],
  ['complaints in a version without them', { formatVersion: 2 }, /is of version [3456789]/],
])('an archive with %s is rejected', async (_, change, said) => {
  const wrong = changed(small, (archive) => void Object.assign(archive, change))
  expect(faultsOf(await check(wrong))).toContainEqual(expect.stringMatching(said))
})

test('what is nested without end is left after a few bytes', async () => {
  const deep = `{"format":"x","members":[${'['.repeat(3_000_000)}`
  expect(await check(deep)).toMatchObject({ outcome: 'unreadable', why: 'tooDeep', bytes: 0 })
  // Brackets in a text nest nothing.
  const shown = changed(small, (archive) => (archive.studio[0].place = `${'[{'.repeat(50)}"\\`))
  expect(await check(shown)).toMatchObject({ outcome: 'fits' })
})

test('stopped, nothing is there of it', async () => {
  const stop = new AbortController()
  stop.abort()
  expect(await importArchive(elsewhere, other, await asked(small, stop.signal))).toEqual({ outcome: 'stopped' })
  expect(await findByWords(elsewhere, other, 'maren', 1)).toEqual([])
})

test('out, in and out again is the same byte for byte once keys are sorted, in any order of sections', async () => {
  const turned = JSON.stringify(
    Object.fromEntries(Object.entries(JSON.parse(text) as Record<string, unknown>).reverse()),
  )
  expect(await importArchive(elsewhere, other, await asked(turned))).toMatchObject({ outcome: 'kept' })
  const again = await exported(elsewhere, other)
  expect(JSON.stringify(sorted(JSON.parse(again)))).toBe(JSON.stringify(sorted(JSON.parse(text))))
  expect((await findByWords(elsewhere, other, 'maren tol', 1))[0].name).toBe('Maren Tolle')
})

test('an archive from before there were complaints and trials is taken all the same', async () => {
  const before = changed(small, (archive) => {
    for (const name of [
      'complaints',
      'trials',
      'trialRatings',
      'memberMerges',
      'followUps',
      ...SINCE_5,
      'programmes',
      'programmeTicks',
      'riderFiles',
      'care',
      'saddles',
      'saddleFittings',
    ])
      delete archive[name]
    for (const row of archive.members) for (const name of ['number', 'email', 'statureMm']) delete row[name]
    for (const row of archive.bikes) for (const name of ['retiredAt', 'careIntervals']) delete row[name]
    for (const row of archive.classes) delete row.teacherId
    for (const row of archive.register)
      for (const name of ['awaitsConfirmation', 'confirmedBy', 'confirmedAt']) delete row[name]
    for (const name of ['referral', 'retention', 'careIntervals']) delete archive.studio[0][name]
    Object.assign(archive, { formatVersion: 2 })
  })
  const third = await openEmptyStudio(process.env.DATABASE_URL!, `saddle_archive_two_${process.pid}`)
  try {
    const sent = { ...(await asked(before)) }
    expect(await importArchive(third.db, third.scope, sent)).toMatchObject({ outcome: 'kept' })
    const again = JSON.parse(await exported(third.db, third.scope)) as Record<string, unknown[]>
    expect([again.complaints, again.trials, again.trialRatings]).toEqual([[], [], []])
    expect(again.register).toHaveLength((JSON.parse(small) as Record<string, unknown[]>).register.length)
  } finally {
    await third.close()
  }
})

test('a studio that holds something takes no archive over it', async () => {
  expect(await check(text)).toEqual({ outcome: 'notEmpty' })
})

test('records that stand in another studio of the same database are left there', async () => {
  const studioId = crypto.randomUUID()
  await db.insert(studio).values({ id: studioId, name: 'Empty', place: 'Here', timeZone: 'UTC', school: {} })
  const empty = { ...scope, studioId }
  expect(await importArchive(db, empty, await asked(small))).toEqual({ outcome: 'elsewhere' })
})
