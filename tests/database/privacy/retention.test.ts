/** @jest-environment node */
import { count, eq, sql } from 'drizzle-orm'
import { formatRetentionPreview, isShorter } from '@/core/messages/studio/retention'
import { KEPT, type Retention } from '@/core/riders/retention/retention'
import type { EmptyStudio } from '@/scripts/support/emptyStudio'
import { openHallCopy } from '../support/hallCopy'
import { listTypes } from '@/server/bikes/versions'
import { addComplaint, closeComplaint } from '@/server/comfort/complaints'
import { addMember } from '@/server/riders/members/members'
import { recordEntry } from '@/server/setups/register'
import { runCommand, runQuery } from '@/server/commands/runCommand'
import { closeDatabase } from '@/server/platform/db/connection'
import { applyRetentions } from '@/server/privacy/daily'
import { previewRetention, retentionOf, saveRetention } from '@/server/privacy/retention'
import { classNote } from '@/server/classes/tables'
import { complaint, programme, programmeTick, trial } from '@/server/comfort/tables'
import { sealRow } from '@/server/platform/sealing/sealed'
import { member } from '@/server/riders/tables'
import { registerCurrent, registerEntry, riderFile } from '@/server/setups/tables'

const KEEP_ALL: Retention = { notes: null, complaints: null, sets: null }
let far: EmptyStudio
let now: Date

/** The hall's records in a studio of its own, looked at ten years on. */
beforeAll(async () => {
  far = await openHallCopy('retention')
  await addOld()
  const [rows] = (await far.db.execute(sql`SELECT MAX(created_at) AS latest FROM class_note`)) as unknown as [
    { latest: Date }[],
  ]
  now = new Date(rows[0].latest)
  now.setUTCFullYear(now.getUTCFullYear() + 10)
})
afterAll(async () => {
  await far.close()
  await closeDatabase()
})

/** Numbers that others replaced since, and a complaint that was closed. */
async function addOld(): Promise<void> {
  const at = new Date('2026-01-05T10:00:00Z')
  const memberId = crypto.randomUUID()
  await addMember(far.db, far.scope, { id: memberId, name: 'Old Numbers' }, at)
  const [type] = (await listTypes(far.db, far.scope)).filter(({ bikeType }) => bikeType.name === 'Sorrel')
  for (const seatHeight of ['5', '6', '7'] as const) {
    const marks = { seatHeight, seatSlide: 'C', barHeight: '5', barSlide: '2' }
    const entry = { id: crypto.randomUUID(), memberId, lineId: type.lineId, typeId: type.id, marks }
    const kept = { ...entry, purpose: 'usual', source: 'imported', certainty: 'measured' } as const
    expect(await recordEntry(far.db, far.scope, kept, at)).toMatchObject({ outcome: 'kept' })
  }
  const complaintId = crypto.randomUUID()
  await addComplaint(far.db, far.scope, { id: complaintId, memberId, what: 'frontKnee', strength: 4 }, at)
  await closeComplaint(far.db, far.scope, complaintId, at)
}

const counted = async (table: typeof classNote | typeof complaint | typeof registerEntry | typeof programmeTick) =>
  (await far.db.select({ n: count() }).from(table))[0].n
const numbersInForce = async () =>
  far.db
    .select({ entry: registerEntry.id, marks: registerEntry.marks })
    .from(registerCurrent)
    .innerJoin(registerEntry, eq(registerEntry.id, registerCurrent.entryId))
    .orderBy(registerEntry.id)

test('without a limit nothing goes; a preview counts and writes nothing; a shorter time is seen', async () => {
  expect(await retentionOf(far.db, far.scope)).toEqual(KEEP_ALL)
  expect(await previewRetention(far.db, far.scope, KEEP_ALL, now)).toEqual({ notes: 0, complaints: 0, sets: 0 })
  const before = await counted(classNote)
  const year: Retention = { notes: 12, complaints: 12, sets: 12 }
  const counts = await previewRetention(far.db, far.scope, year, now)
  expect(counts.notes).toBe(before)
  for (const kind of KEPT) expect(counts[kind]).toBeGreaterThan(0)
  expect(await previewRetention(far.db, far.scope, { ...year, notes: 120 }, now)).toMatchObject({ notes: before - 1 })
  expect(await counted(classNote)).toBe(before)
  expect(formatRetentionPreview({ notes: 2, complaints: 1, sets: 0 })).toBe(
    'Today 2 notes and 1 complaint would go, for good.',
  )
  expect([isShorter(KEEP_ALL, year), isShorter(year, KEEP_ALL), isShorter(year, year)]).toEqual([true, false, false])
})

/** Exercises and riders' own files of two years ago and of yesterday. */
async function addBesides(): Promise<void> {
  const [{ id: memberId }] = await far.db.select({ id: member.id }).from(member).limit(1)
  const { studioId, userId: createdBy } = far.scope
  const exercises = { about: { sign: 'kneesIn' }, exercises: ['sideLegLifts'], weeks: 4, since: '2020-01-01' } as const
  const content = { studio: 'Elsewhere', sets: [], body: null, wish: null, limits: [] }
  for (const [id, days] of [
    ['old', 730],
    ['young', 1],
  ] as const) {
    const createdAt = new Date(now.getTime() - days * 86_400_000)
    const row = { id, studioId, memberId, createdAt, createdBy }
    await far.db.insert(programme).values(sealRow(programme, studioId, { ...row, body: exercises }))
    const file = { ...row, hash: 'ab'.repeat(32), isMeasured: true, content, issuedAt: createdAt }
    await far.db.insert(riderFile).values(sealRow(riderFile, studioId, file))
  }
  const tick = { id: 'tick', studioId, programmeId: 'old', item: 0, day: '2020-01-02', createdAt: now }
  await far.db.insert(programmeTick).values(tick)
}
const besides = async () => ({
  programmes: (await far.db.select({ id: programme.id }).from(programme)).map(({ id }) => id),
  ticks: await counted(programmeTick),
  files: (await far.db.select({ id: riderFile.id }).from(riderFile)).map(({ id }) => id),
})

test('what is too old goes; numbers in force, open complaints and running trials stay', async () => {
  const inForce = await numbersInForce()
  const open = await far.db
    .select({ id: complaint.id })
    .from(complaint)
    .where(sql`closed_at IS NULL`)
  const running = await far.db
    .select({ id: trial.id })
    .from(trial)
    .where(sql`ended_at IS NULL`)
  expect([inForce.length > 0, open.length > 0, running.length > 0]).toEqual([true, true, true])
  await addBesides()
  const input = { retention: { notes: 12, complaints: 12, sets: 12 } }
  const asked = { name: 'privacy.previewRetention', input }
  const preview = (await runQuery(far.db, far.scope, asked, now)) as unknown as { counts: object }
  const id = crypto.randomUUID()
  const before = [await counted(classNote), await counted(complaint), await counted(registerEntry)]
  const saved = await runCommand(far.db, far.scope, { name: 'privacy.saveRetention', id, input }, now)
  expect(saved).toEqual({ outcome: 'kept' })
  const after = [await counted(classNote), await counted(complaint), await counted(registerEntry)]
  const gone = before.map((n, i) => n - after[i])
  expect({ notes: gone[0], complaints: gone[1] }).toEqual({
    notes: (preview.counts as Record<string, number>).notes,
    complaints: (preview.counts as Record<string, number>).complaints,
  })
  // What only a deleted trial or move rested on goes with it, or the next day.
  expect(gone[2]).toBeGreaterThanOrEqual((preview.counts as Record<string, number>).sets)
  expect(await numbersInForce()).toEqual(inForce)
  expect(await besides()).toEqual({ programmes: ['young'], ticks: 0, files: ['young'] })
  const left = await far.db
    .select({ id: complaint.id })
    .from(complaint)
    .where(sql`closed_at IS NULL`)
  expect(left).toEqual(open)
  expect(
    await far.db
      .select({ id: trial.id })
      .from(trial)
      .where(sql`ended_at IS NULL`),
  ).toEqual(running)
  await applyRetentions(far.db, now)
  await applyRetentions(far.db, now)
  expect(await previewRetention(far.db, far.scope, input.retention, now)).toEqual({ notes: 0, complaints: 0, sets: 0 })
  await saveRetention(far.db, far.scope, KEEP_ALL)
})

test('a time no studio can mean is refused', async () => {
  for (const notes of [0, 5, 7.5, 601, '12'])
    expect(
      await runCommand(
        far.db,
        far.scope,
        { name: 'privacy.saveRetention', id: crypto.randomUUID(), input: { retention: { ...KEEP_ALL, notes } } },
        now,
      ),
    ).toMatchObject({ code: 'malformed' })
})
