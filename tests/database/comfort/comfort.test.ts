/** @jest-environment node */
import type { Marks } from '@/core/base/conventions'
import { storyPage } from '@/interface/comfort/story/storyPage'
import { command, ownCommand } from '@/interface/commands/command'
import type { Scope } from '@/server/platform/accounts/scope'
import { findBike } from '@/server/bikes/bikes'
import { afterClass } from '@/server/pages/classes/after'
import { assignBike } from '@/server/classes/assignments'
import { addClass, findClass } from '@/server/classes/classes'
import { floorBefore } from '@/server/pages/classes/floor'
import { addNote } from '@/server/classes/notes'
import { bookRider } from '@/server/classes/roster'
import { watchData } from '@/server/pages/classes/watch'
import {
  addComplaint,
  closeComplaint,
  complaintsToAnswer,
  listComplaints,
  openComplaints,
} from '@/server/comfort/complaints'
import { studioPicture } from '@/server/pages/comfort/picture'
import { startTrial } from '@/server/commands/useCases/startTrial'
import { reasonsOf, type Reasons } from '@/server/pages/comfort/reasons'
import { STORY_LINES, storyOf, type StoryPart } from '@/server/pages/comfort/story'
import { endTrial, rateTrial } from '@/server/comfort/trialChanges'
import { listTrials } from '@/server/comfort/trials'
import { trialRating } from '@/server/comfort/tables'
import { closeDatabase, database, withTransaction } from '@/server/platform/db/connection'
import { appendEvidence, finishSetup, listEvidence } from '@/server/setups/evidence'
import { startSetup } from '@/server/setups/setups'
import { giveConsent } from '@/server/riders/consent'
import { addMember } from '@/server/riders/members/members'
import { openLink, ownerOf } from '@/server/riders/memberPage/links'
import { addMessage } from '@/server/riders/memberPage/messages'
import { currentEntries, listEntries, recordEntry } from '@/server/setups/register'
import { getStudio } from '@/server/studio/studio'
import { setReferralText } from '@/server/comfort/referral'

let role: 'manager' | 'desk' = 'manager'
jest.mock('@/server/platform/accounts/session', () => {
  const person = () => ({ userId: 'ines-harrow', name: 'Ines Harrow', studioId: 'netloft-hall', role })
  return { currentUser: async () => person(), requireUser: async () => person() }
})
let peer = 'comfort'
jest.mock('next/headers', () => ({ headers: async () => new Headers({ 'x-forwarded-for': peer }) }))

const db = database()
const scope: Scope = { studioId: 'netloft-hall', userId: 'ines-harrow', role: 'manager' }
const id = () => crypto.randomUUID()
const DAY_MS = 86_400_000
/** Long past, so that nothing here is of the demo's weeks. */
const begin = new Date('2003-03-03T10:00:00Z')
const day = (days: number) => new Date(begin.getTime() + days * DAY_MS)
const marks: Marks = { seatHeight: '7', seatSlide: 'C', barHeight: '5', barSlide: '2' }
const knee = { what: 'frontKnee', side: 'left', strength: 6 } as const

beforeAll(() => {
  process.env.BETTER_AUTH_SECRET ??= 'only-for-this-test-and-thrown-away-after'
})
beforeEach(() => {
  role = 'manager'
  peer = id()
})
afterAll(closeDatabase)

/** A rider with numbers on Sorrel, kept on bike 1 on day 0. */
async function rider(own: Marks = marks): Promise<string> {
  const memberId = id()
  await addMember(db, scope, { id: memberId, name: `Felt ${memberId.slice(0, 6)}` }, begin)
  await giveConsent(db, scope, memberId, 'spoken', begin)
  const bike = (await findBike(db, scope, 'bike-1'))!
  // A knee that was measured and bends too much: without it no seat height is moved.
  const setupId = id()
  await startSetup(db, scope, { id: setupId, memberId, bikeId: 'bike-1' }, day(-1))
  const read = { kind: 'kneeAngle', by: 'goniometer', deg: 41, at: own } as const
  await appendEvidence(db, scope, setupId, { id: id(), row: read }, day(-1))
  await withTransaction(db, (tx) => finishSetup(tx, scope, setupId, { id: id(), marks: own }, day(-1)))
  const entry = { lineId: bike.lineId, typeId: bike.typeId, purpose: 'usual', source: 'setUp' } as const
  await recordEntry(
    db,
    scope,
    { id: id(), memberId, ...entry, certainty: 'checked', marks: own, bikeId: 'bike-1' },
    begin,
  )
  return memberId
}

async function ride(memberId: string, at: Date, bikeId = 'bike-1'): Promise<string> {
  const classId = id()
  const endsAt = new Date(at.getTime() + 45 * 60_000)
  await addClass(db, scope, { id: classId, title: 'Past', startsAt: at, endsAt, roomId: 'net-loft' }, at)
  await bookRider(db, scope, { classId, memberId, state: 'here', comesMinBefore: 5 }, at)
  await assignBike(db, scope, { id: id(), classId, bikeId, memberId }, at)
  return classId
}

const shownIn = ({ answer }: Reasons) => {
  const { axis, to, deg } = answer!.change!
  return { axis, ...(to !== undefined && { to }), ...(axis === 'tilt' && { deg }) }
}

/** A complaint of the front of the knee on trial since day 1. */
async function onTrial(memberId: string, more: Readonly<Partial<{ reason: string; complaintId: string }>> = {}) {
  const complaintId = more.complaintId ?? id()
  if (!more.complaintId)
    await addComplaint(db, scope, { id: complaintId, memberId, bikeId: 'bike-1', ...knee }, day(0.5))
  const found = await reasonsOf(db, scope, memberId, day(1))
  const asked = { id: id(), memberId, complaintId, shown: shownIn(found), weeks: 1, ratingBefore: 6 } as const
  const result = await startTrial(db, scope, { ...asked, reason: more.reason ?? null }, day(1))
  return { asked, complaintId, result, change: found.answer!.change! }
}

const holds = async (memberId: string) => (await currentEntries(db, scope, [memberId]))[0]

describe('a trial', () => {
  test('begins with a complaint, changes one number everywhere, is rated over two rides, and stays', async () => {
    const memberId = await rider()
    const { asked, complaintId, result, change } = await onTrial(memberId)
    expect(result).toEqual({ outcome: 'kept' })
    const now = await holds(memberId)
    expect(now).toMatchObject({ source: 'trial', certainty: 'translated', id: asked.id })
    expect(now.marks).toEqual({ ...marks, [change.axis]: change.to })
    const [before] = await listTrials(db, scope, memberId, day(2))
    expect(before).toMatchObject({ stage: 'early', rides: 0, verdict: 'unknown', proposed: null, fromMarks: marks })
    await ride(memberId, day(3))
    const classId = await ride(memberId, day(6))
    // A ride on a bike of another type tells nothing of these numbers.
    await ride(memberId, day(7), 'bike-3')
    await rateTrial(db, scope, { id: id(), trialId: asked.id, rating: 2 }, day(8))
    const [due] = await listTrials(db, scope, memberId, day(9))
    expect(due).toMatchObject({ stage: 'over', rides: 2, verdict: 'better', proposed: 'keep' })
    const after = await afterClass(db, scope, (await findClass(db, scope, classId))!, day(9))
    expect(after.rows).toContainEqual(expect.objectContaining({ kind: 'trialDue', memberId }))
    // What runs on trial is not told once more as a complaint.
    expect(after.rows.filter(({ kind }) => kind === 'felt')).toEqual([])
    expect(await endTrial(db, scope, { id: asked.id, outcome: 'keep' }, day(9))).toEqual({ outcome: 'kept' })
    expect((await holds(memberId)).id).toBe(asked.id)
    expect((await listComplaints(db, scope, memberId))[0]).toMatchObject({ id: complaintId, closedAt: day(9) })
    const { items, felt } = await storyOf(db, scope, memberId, { part: 'all', page: 0 }, day(10))
    expect(items.map(({ kind }) => kind)).toEqual(['ended', 'rating', 'trial', 'complaint', 'numbers', 'numbers'])
    expect(felt.map(({ rating }) => rating)).toEqual([6, 2])
  })

  test('undone, the numbers of before hold again, also where others were worked out from it', async () => {
    const memberId = await rider()
    const { asked } = await onTrial(memberId)
    const other = (await findBike(db, scope, 'bike-5'))!
    const worked = {
      memberId,
      lineId: other.lineId,
      typeId: other.typeId,
      purpose: 'usual' as const,
    }
    const entry = {
      ...worked,
      marks: { seatHeight: 'L' },
      source: 'translated',
      certainty: 'translated',
      fromId: asked.id,
    } as const
    await recordEntry(db, scope, { ...entry, id: id() }, day(2))
    await endTrial(db, scope, { id: asked.id, outcome: 'undo' }, day(9))
    const current = await currentEntries(db, scope, [memberId])
    expect(current).toHaveLength(1)
    expect(current[0]).toMatchObject({ marks, source: 'restored', certainty: 'checked' })
    // A second time, and in another way, it is over already.
    expect(await endTrial(db, scope, { id: asked.id, outcome: 'undo' }, day(9))).toEqual({ outcome: 'kept' })
    expect(await endTrial(db, scope, { id: asked.id, outcome: 'keep' }, day(9))).toEqual({ outcome: 'ended' })
    expect((await listEntries(db, scope, memberId)).filter(({ source }) => source === 'restored')).toHaveLength(1)
  })

  test('after it ended without help its cause is proposed no more, with the reason', async () => {
    const memberId = await rider()
    const { asked, change } = await onTrial(memberId)
    const [{ cause }] = await listTrials(db, scope, memberId, day(2))
    await endTrial(db, scope, { id: asked.id, outcome: 'next' }, day(9))
    const { answer, tried } = await reasonsOf(db, scope, memberId, day(10))
    expect(tried).toEqual([cause])
    expect(answer!.proposedFor).not.toBe(cause)
    expect(answer!.change?.axis === change.axis && answer!.change.direction === change.direction).toBe(false)
    expect(answer!.causes.find((one) => one.cause === cause)!.against[0]).toMatch(/was on trial/)
  })

  test('a number that was changed again since is not gone back to unasked', async () => {
    const memberId = await rider()
    const { asked } = await onTrial(memberId)
    const now = await holds(memberId)
    const { lineId, typeId } = now
    const entry = { memberId, lineId, typeId, purpose: 'usual', source: 'setUp', certainty: 'checked' } as const
    await recordEntry(db, scope, { ...entry, id: id(), marks: { ...marks, seatHeight: '11', seatSlide: 'F' } }, day(3))
    expect(await endTrial(db, scope, { id: asked.id, outcome: 'undo' }, day(9))).toEqual({ outcome: 'numbersChanged' })
    expect((await listTrials(db, scope, memberId, day(9)))[0].endedAt).toBeNull()
    const left = await endTrial(db, scope, { id: asked.id, outcome: 'undo', leaveNumbers: true }, day(9))
    expect(left).toEqual({ outcome: 'kept' })
    expect((await holds(memberId)).marks.seatHeight).toBe('11')
  })

  test('a second change while one runs needs a reason, and is stored with it', async () => {
    const memberId = await rider()
    await onTrial(memberId)
    const complaintId = id()
    // Elbows that were seen locked in class speak for bars that are too far.
    const at = { memberId, bikeId: 'bike-1', side: 'both', createdAt: day(1.5) } as const
    await addNote(db, scope, { id: id(), ...at, region: 'hands', sign: 'elbowsLocked' })
    await addComplaint(db, scope, { id: complaintId, memberId, bikeId: 'bike-1', what: 'neck', strength: 7 }, day(2))
    const shown = shownIn(await reasonsOf(db, scope, memberId, day(2)))
    const asked = { id: id(), memberId, complaintId, shown, weeks: 2, ratingBefore: 7, reason: null } as const
    expect(await startTrial(db, scope, asked, day(2))).toEqual({ outcome: 'needsReason' })
    const reasoned = { ...asked, reason: 'they cannot hold the bars' }
    expect(await startTrial(db, scope, reasoned, day(2))).toEqual({ outcome: 'kept' })
    expect((await listTrials(db, scope, memberId, day(3)))[0].reason).toBe(reasoned.reason)
  })

  test('felt again while its change is on trial it is no new complaint; something else is', async () => {
    const memberId = await rider()
    await onTrial(memberId)
    const at = { memberId, bikeId: 'bike-1', sign: 'felt', createdAt: day(3) } as const
    await addNote(db, scope, { id: id(), ...at, region: 'feltKneeFront', side: 'left', score: 4 })
    const again = await reasonsOf(db, scope, memberId, day(4))
    expect(again.complaints.map(({ onTrial: tried }) => tried)).toEqual([true, true])
    await addNote(db, scope, { id: id(), ...at, region: 'feltHands', side: 'both', score: 4 })
    const other = await reasonsOf(db, scope, memberId, day(4))
    expect(other.complaints.filter(({ onTrial: tried }) => !tried)).toMatchObject([{ what: 'hands' }])
  })

  test('sent twice it is one trial, one rating and one end; another step than was shown is none', async () => {
    const memberId = await rider()
    const { asked } = await onTrial(memberId)
    expect(await startTrial(db, scope, { ...asked, reason: null }, day(1))).toEqual({ outcome: 'kept' })
    const rated = { id: id(), trialId: asked.id, rating: 4 }
    for (let i = 0; i < 2; i++) expect(await rateTrial(db, scope, rated, day(4))).toEqual({ outcome: 'kept' })
    expect(await rateTrial(db, scope, { ...rated, rating: 5 }, day(4))).toEqual({ outcome: 'idTaken' })
    expect((await listTrials(db, scope, memberId, day(5)))[0].ratings).toHaveLength(1)
    // Said again on that day it replaces what was said before, whoever says it; a day later it is another.
    for (const rating of [5, 7]) await rateTrial(db, scope, { ...rated, id: id(), rating }, day(4))
    expect((await listTrials(db, scope, memberId, day(5)))[0].ratings).toMatchObject([{ rating: 7 }])
    await rateTrial(db, scope, { ...rated, id: id(), rating: 3 }, day(5))
    const many = await Promise.all(
      Array.from({ length: 12 }, (_, i) => rateTrial(db, scope, { ...rated, id: id(), rating: i % 10 }, day(6))),
    )
    expect(many).toEqual(many.map(() => ({ outcome: 'kept' })))
    expect((await listTrials(db, scope, memberId, day(7)))[0].ratings.slice(0, 2)).toMatchObject([
      { rating: 7 },
      { rating: 3 },
    ])
    expect((await listTrials(db, scope, memberId, day(7)))[0].ratings).toHaveLength(3)
    const [fresh, complaintId] = [await rider(), id()]
    await addComplaint(db, scope, { id: complaintId, memberId: fresh, ...knee }, day(1))
    const other = { ...asked, id: id(), memberId: fresh, complaintId, reason: null }
    const stale = { ...other, shown: { axis: 'seatHeight', to: '14' } } as const
    expect(await startTrial(db, scope, stale, day(1))).toEqual({ outcome: 'stale' })
    expect((await holds(fresh)).marks).toEqual(marks)
  })

  test('two at once begin one after the other: the second learns that one is running', async () => {
    const memberId = await rider()
    const complaintId = id()
    await addComplaint(db, scope, { id: complaintId, memberId, bikeId: 'bike-1', ...knee }, day(0.5))
    const shown = shownIn(await reasonsOf(db, scope, memberId, day(1)))
    const asked = () => ({ id: id(), memberId, complaintId, shown, weeks: 1, ratingBefore: 6, reason: null }) as const
    const results = await Promise.all([1, 2].map(() => startTrial(db, scope, asked(), day(1))))
    expect(results.map(({ outcome }) => outcome).sort()).toEqual(['kept', 'needsReason'])
    expect(await listTrials(db, scope, memberId, day(1))).toHaveLength(1)
  })
})

test('a story of ten thousand ratings and complaints is reported page by page, each small', async () => {
  const memberId = await rider()
  const { asked } = await onTrial(memberId)
  const at = (n: number) => new Date(day(2).getTime() + n * 60_000)
  const rows = Array.from({ length: 10_000 }, (_, n) => n)
  for (let from = 0; from < rows.length; from += 2000)
    await db.insert(trialRating).values(
      rows.slice(from, from + 2000).map((n) => ({
        id: id(),
        studioId: scope.studioId,
        trialId: asked.id,
        rating: n % 11,
        toldBy: 'member' as const,
        createdAt: at(n),
      })),
    )
  const story = (part: StoryPart, page: number) => storyOf(db, scope, memberId, { part, page }, day(20))
  const first = await story('all', 0)
  expect(first.items).toHaveLength(STORY_LINES)
  expect(first.more).toBe(true)
  const page = storyPage(first, { part: 'all', page: 0 })
  expect(Buffer.byteLength(JSON.stringify(page))).toBeLessThan(60_000)
  expect(page.items[0].more).toMatch(/^\d+ → … → /)
  const second = await story('all', 1)
  expect(second.items[0].at.getTime()).toBeLessThanOrEqual(first.items.at(-1)!.at.getTime())
  expect(new Set((await story('numbers', 0)).items.map(({ kind }) => kind))).toEqual(new Set(['numbers']))
  expect((await story('all', 900)).items).toEqual([])
})

describe('red flags', () => {
  test('a complaint with one proposes nothing, begins no trial, and a referral records who was informed', async () => {
    const memberId = await rider()
    const shown = { axis: 'seatHeight', to: '8' } as const
    const complaintId = id()
    const felt = { ...knee, quality: ['swelling'], lasts: true } as const
    await addComplaint(db, scope, { id: complaintId, memberId, ...felt }, day(0))
    const { answer, complaints } = await reasonsOf(db, scope, memberId, day(1))
    expect(answer).toMatchObject({ refer: { why: expect.stringMatching(/swelling/i) } })
    expect(answer!.change).toBeUndefined()
    expect(complaints[0].flags).toContain('swelling')
    const asked = { id: id(), memberId, complaintId, shown, weeks: 1, ratingBefore: 6, reason: 'x' } as const
    expect(await startTrial(db, scope, asked, day(1))).toEqual({ outcome: 'stale' })
    expect(
      await command('comfort.recordReferral', { memberId, complaintId, handedTo: '  the rider,\n and the desk ' }),
    ).toEqual({ outcome: 'kept' })
    expect((await listComplaints(db, scope, memberId))[0].handedTo).toBe('the rider, and the desk')
  })

  test('a red flag for what is on trial stops what else is open too, however much that is', async () => {
    const memberId = await rider()
    await onTrial(memberId)
    const felt = ['hands', 'wrist', 'neck', 'lowBack', 'feet', 'chafing', 'shoulders', 'hipPinch'] as const
    const more = ['saddlePressure', 'topOfKnee', 'backOfKnee', 'outerKnee', 'stretched', 'cramped'] as const
    const swollen = { ...knee, quality: ['swelling'] } as const
    await addComplaint(db, scope, { id: id(), memberId, ...swollen }, day(2))
    for (const what of [...felt, ...more])
      await addComplaint(db, scope, { id: id(), memberId, what, strength: 5 }, day(3))
    const { answer, complaints } = await reasonsOf(db, scope, memberId, day(4))
    expect(complaints.find(({ flags }) => flags.length > 0)).toMatchObject({ what: 'frontKnee', onTrial: false })
    expect(answer).toMatchObject({ refer: { why: expect.stringMatching(/swelling/i) } })
    expect(answer!.change).toBeUndefined()
  })

  test('one tapped on the floor stops everything until its place is recorded', async () => {
    const memberId = await rider()
    const noteId = id()
    const at = { memberId, bikeId: 'bike-1', createdAt: day(1) }
    await addNote(db, scope, { id: noteId, ...at, region: 'sharp', sign: 'redFlag', side: 'left' })
    await addNote(db, scope, { id: id(), ...at, region: 'feltKneeFront', sign: 'felt', side: 'left', score: 5 })
    const stopped = await reasonsOf(db, scope, memberId, day(2))
    expect(stopped).toMatchObject({ answer: null, flagged: [{ id: noteId }] })
    const said = { ...knee, quality: ['sharp'], health: [], moment: null, lasts: null, line: '' }
    expect(
      await command('comfort.saveComplaint', { memberId, said: said as never, bikeId: null, noteId }, id()),
    ).toEqual({
      outcome: 'kept',
    })
    const told = await reasonsOf(db, scope, memberId, day(2))
    expect(told.flagged).toEqual([])
    expect(told.answer!.refer).toBeDefined()
  })

  test('what was answered of a pregnancy in the last set-up counts for what is felt since', async () => {
    const memberId = await rider()
    const setupId = id()
    await startSetup(db, scope, { id: setupId, memberId, bikeId: 'bike-2' }, day(1))
    const answered = { kind: 'rider', experience: 'regular', pregnant: true } as const
    await appendEvidence(db, scope, setupId, { id: id(), row: answered }, day(1))
    await withTransaction(db, (tx) => finishSetup(tx, scope, setupId, { id: id(), marks }, day(1)))
    await addComplaint(db, scope, { id: id(), memberId, what: 'saddlePressure', strength: 5 }, day(2))
    const soon = await reasonsOf(db, scope, memberId, day(3))
    expect(soon.complaints[0].flags).toEqual(['pregnancy'])
    expect(soon.answer!.change).toBeUndefined()
    expect((await reasonsOf(db, scope, memberId, day(400))).answer!.refer).toBeUndefined()
  })

  test('the studio words the referral, and cannot switch the rule off', async () => {
    expect(await command('comfort.saveReferral', { words: '  Call the harbour clinic.\nThen sit down. ' })).toEqual({
      outcome: 'kept',
    })
    expect((await getStudio(db, scope)).referral).toBe('Call the harbour clinic.\nThen sit down.')
    expect(await command('comfort.saveReferral', { words: 'x'.repeat(801) })).toMatchObject({ outcome: 'refused' })
    role = 'desk'
    expect(await command('comfort.saveReferral', { words: 'Nothing to see' })).toMatchObject({ outcome: 'refused' })
    await setReferralText(db, scope, null)
  })
})

describe('flags that cannot be buried', () => {
  test('an open flag is found behind any number of notes, an old complaint behind newer ones', async () => {
    const memberId = await rider()
    const flag = id()
    const at = { memberId, bikeId: 'bike-1', side: 'both' } as const
    await addNote(db, scope, { id: flag, ...at, region: 'chest', sign: 'redFlag', createdAt: day(1) })
    for (let i = 0; i < 210; i++)
      await addComplaint(db, scope, { id: id(), memberId, what: 'feet', strength: 1 }, day(2))
    const open = await complaintsToAnswer(db, scope, memberId, day(3))
    for (const one of open) await closeComplaint(db, scope, one.id, day(3))
    const old = id()
    await addComplaint(db, scope, { id: old, memberId, what: 'chest', strength: 3 }, day(0))
    const { flagged, complaints } = await reasonsOf(db, scope, memberId, day(4))
    expect(flagged.map((one) => one.id)).toEqual([flag])
    expect(complaints.map((one) => one.id)).toEqual([old])
  })

  test('a note with a flag stays a flag when it is taken up as another complaint', async () => {
    const memberId = await rider()
    const noteId = id()
    const at = { memberId, bikeId: 'bike-1', createdAt: day(1), side: 'left' } as const
    await addNote(db, scope, { id: noteId, ...at, region: 'sharp', sign: 'redFlag' })
    const said = { what: 'frontThighs', side: null, strength: 2, quality: [], health: [] }
    const plain = { ...said, moment: null, lasts: null, line: '' }
    expect(
      await command('comfort.saveComplaint', { memberId, said: plain as never, bikeId: null, noteId }, id()),
    ).toEqual({ outcome: 'kept' })
    const { complaints, answer } = await reasonsOf(db, scope, memberId, day(2))
    expect(complaints[0].flags).toContain('sharp')
    expect(answer!.refer).toBeDefined()
    expect(answer!.change).toBeUndefined()
  })

  test('a chest flag taken up as a neck complaint stays open until it is taken up as chest pain', async () => {
    const memberId = await rider()
    const noteId = id()
    await addNote(db, scope, {
      id: noteId,
      memberId,
      bikeId: 'bike-1',
      createdAt: day(1),
      side: 'both',
      region: 'chest',
      sign: 'redFlag',
    })
    const neck = id()
    await addComplaint(db, scope, { id: neck, memberId, what: 'neck', strength: 2, noteId }, day(1))
    expect((await reasonsOf(db, scope, memberId, day(2))).flagged).toHaveLength(1)
    await closeComplaint(db, scope, neck, day(2))
    expect((await reasonsOf(db, scope, memberId, day(2))).flagged).toHaveLength(1)
    await addComplaint(db, scope, { id: id(), memberId, what: 'chest', strength: 2, noteId }, day(2))
    expect((await reasonsOf(db, scope, memberId, day(2))).flagged).toEqual([])
  })

  test('an unknown side has to be recorded, and then decides', async () => {
    const memberId = await rider()
    const complaintId = id()
    await addComplaint(db, scope, { id: complaintId, memberId, what: 'frontKnee', strength: 4, lasts: true }, day(1))
    expect((await reasonsOf(db, scope, memberId, day(2))).answer!.refer!.askFirst).toMatch(/which side/)
    expect(await command('comfort.recordSide', { memberId, complaintId, side: 'north' as never })).toMatchObject({
      outcome: 'refused',
    })
    expect(await command('comfort.recordSide', { memberId, complaintId, side: 'both' })).toEqual({ outcome: 'kept' })
    expect((await reasonsOf(db, scope, memberId, day(2))).answer!.refer).toBeUndefined()
    // A recorded side does not change.
    await command('comfort.recordSide', { memberId, complaintId, side: 'left' })
    expect((await listComplaints(db, scope, memberId))[0].side).toBe('both')
  })

  test('what was answered at home counts as what was answered in a set-up', async () => {
    const memberId = await rider()
    const link = (await openLink(db, scope, memberId, day(1)))!
    const owner = { linkId: link.id, studioId: scope.studioId, memberId, name: 'At home' }
    const evidence = [{ kind: 'rider', experience: 'new', pregnant: true }] as const
    await addMessage(db, owner, { id: id(), kind: 'home', body: { evidence } }, day(2))
    await addComplaint(db, scope, { id: id(), memberId, what: 'lowBack', side: 'both', strength: 3 }, day(3))
    const { complaints, answer } = await reasonsOf(db, scope, memberId, day(4))
    expect(complaints[0].flags).toEqual(['pregnancy'])
    expect(answer!.refer).toBeDefined()
    // A later answer that leaves it out takes nothing back, and the next set-up opens with it.
    const later = [{ kind: 'rider', experience: 'regular', soleMm: 21 }] as const
    await addMessage(db, owner, { id: id(), kind: 'home', body: { evidence: later } }, day(5))
    expect((await reasonsOf(db, scope, memberId, day(6))).answer!.refer).toBeDefined()
    const setupId = id()
    await startSetup(db, scope, { id: setupId, memberId, bikeId: 'bike-2' }, day(7))
    const [told] = await listEvidence(db, scope, setupId)
    expect(told.row).toEqual({ ...later[0], pregnant: true })
    await appendEvidence(db, scope, setupId, { id: id(), row: { ...later[0], pregnant: false } }, day(7))
    await withTransaction(db, (tx) => finishSetup(tx, scope, setupId, { id: id(), marks }, day(7)))
    expect((await reasonsOf(db, scope, memberId, day(8))).answer!.refer).toBeUndefined()
  })
})

describe('complaints', () => {
  test('what is felt on the floor is answered as the complaint it stands for, once, until it is settled', async () => {
    const memberId = await rider()
    const at = { memberId, bikeId: 'bike-1', region: 'feltKneeFront', sign: 'felt', side: 'left' } as const
    const [first, second] = [id(), id()]
    await addNote(db, scope, { id: first, ...at, score: 4, createdAt: day(1) })
    await addNote(db, scope, { id: second, ...at, score: 6, createdAt: day(3) })
    const open = await complaintsToAnswer(db, scope, memberId, day(4))
    expect(open).toMatchObject([{ id: second, what: 'frontKnee', side: 'left', strength: 6 }])
    expect(await complaintsToAnswer(db, scope, memberId, day(50))).toEqual([])
    // What is said of it later takes its place.
    const said = { ...knee, moment: 'late', lasts: false, quality: [], health: [], line: '' }
    const other = await rider()
    const noted = id()
    await addNote(db, scope, { id: noted, ...at, memberId: other, score: 5, createdAt: day(3) })
    await command('comfort.saveComplaint', { memberId: other, said: said as never, bikeId: null, noteId: noted }, id())
    expect(await complaintsToAnswer(db, scope, other, day(4))).toMatchObject([{ moment: 'late', noteId: noted }])
    const shown = shownIn(await reasonsOf(db, scope, memberId, day(4)))
    const asked = { id: id(), memberId, complaintId: second, shown, weeks: 1, ratingBefore: 6, reason: null } as const
    expect(await startTrial(db, scope, asked, day(4))).toEqual({ outcome: 'kept' })
    expect(await complaintsToAnswer(db, scope, memberId, day(4))).toHaveLength(1)
    await endTrial(db, scope, { id: asked.id, outcome: 'keep' }, day(12))
    expect(await complaintsToAnswer(db, scope, memberId, day(12))).toEqual([])
  })

  test.each([
    ['an unknown word', { ...knee, what: 'soul' }],
    ['strength 11', { ...knee, strength: 11 }],
    ['half a strength', { ...knee, strength: 4.5 }],
    ['an unknown quality', { ...knee, quality: ['odd'] }],
    ['an unknown moment', { ...knee, moment: 'never' }],
    ['nothing', null],
    ['no object', 'frontKnee'],
  ])('%s is refused from the floor and from the member’s page, and nothing is kept', async (_, sent) => {
    const memberId = await rider()
    const link = (await openLink(db, scope, memberId, new Date()))!
    const none = { bikeId: null, noteId: null }
    expect(await command('comfort.saveComplaint', { memberId, said: sent as never, ...none }, id())).toMatchObject({
      outcome: 'refused',
    })
    expect(await ownCommand(link.token, 'ownPage.sendComplaint', { said: sent as never }, id())).toMatchObject({
      outcome: 'refused',
    })
    expect(await listComplaints(db, scope, memberId)).toEqual([])
  })

  test('from the member’s page: in the after-list of their class, without a side that means nothing', async () => {
    const memberId = await rider()
    const classId = await ride(memberId, day(1))
    const link = (await openLink(db, scope, memberId, new Date()))!
    const complaintId = id()
    const said = { what: 'stretched', side: 'left', strength: 7, line: ' far\u0000 away ' }
    for (let i = 0; i < 2; i++)
      expect(await ownCommand(link.token, 'ownPage.sendComplaint', { said: said as never }, complaintId)).toEqual({
        outcome: 'kept',
      })
    expect(await openComplaints(db, scope, [memberId])).toMatchObject([
      { side: null, line: 'far away', toldBy: 'member' },
    ])
    const { rows } = await afterClass(db, scope, (await findClass(db, scope, classId))!, day(2))
    expect(rows.find(({ kind }) => kind === 'felt')).toMatchObject({
      memberId,
      subjects: [{ kind: 'complaint', complaint: { what: 'stretched', strength: 7 } }],
    })
    expect(await command('comfort.endComplaint', { memberId, complaintId })).toEqual({ outcome: 'kept' })
    expect(await openComplaints(db, scope, [memberId])).toEqual([])
    expect(await command('comfort.reopenComplaint', { memberId, complaintId })).toEqual({ outcome: 'kept' })
    expect(await openComplaints(db, scope, [memberId])).toHaveLength(1)
    const ended = await ownCommand(
      link.token.replace(/.$/, 'x'),
      'ownPage.sendComplaint',
      { said: said as never },
      id(),
    )
    expect(ended).toMatchObject({ outcome: 'refused', say: expect.stringMatching(/link has ended/) })
  })

  test('a note of somebody else is not taken up, nor another rider’s trial rated from a member’s page', async () => {
    const [memberId, other] = [await rider(), await rider()]
    const noteId = id()
    const at = { memberId: other, bikeId: 'bike-1', createdAt: day(1) }
    await addNote(db, scope, { id: noteId, ...at, region: 'sharp', sign: 'redFlag', side: 'left' })
    const said = { ...knee, quality: [], health: [] }
    expect(
      await command('comfort.saveComplaint', { memberId, said: said as never, bikeId: null, noteId }, id()),
    ).toMatchObject({
      outcome: 'refused',
    })
    const { asked } = await onTrial(await rider())
    const link = (await openLink(db, scope, memberId, new Date()))!
    expect(await ownCommand(link.token, 'ownPage.rateOwnTrial', { trialId: asked.id, rating: 0 }, id())).toMatchObject({
      outcome: 'refused',
    })
    const own = (await openLink(db, scope, asked.memberId, new Date()))!
    expect((await ownerOf(db, own.token, new Date()))!.memberId).toBe(asked.memberId)
    expect(await ownCommand(own.token, 'ownPage.rateOwnTrial', { trialId: asked.id, rating: 11 }, id())).toMatchObject({
      outcome: 'refused',
    })
    expect(await ownCommand(own.token, 'ownPage.rateOwnTrial', { trialId: asked.id, rating: 3 }, id())).toEqual({
      outcome: 'kept',
    })
  })

  test('the desk neither reads reasons into a trial nor ends one', async () => {
    role = 'desk'
    const [memberId, complaintId, trialId] = [id(), id(), id()]
    const asked = {
      id: trialId,
      memberId,
      complaintId,
      shown: { axis: 'seatHeight' },
      weeks: 1,
      ratingBefore: 1,
    } as const
    for (const result of [
      await command('comfort.startTrial', { ...asked, reason: null }),
      await command('comfort.finishTrial', { trialId, outcome: 'keep', leaveNumbers: false }),
      await command('comfort.rate', { trialId, rating: 3 }, id()),
      await command(
        'comfort.saveComplaint',
        { memberId, said: knee as never, bikeId: null, noteId: null },
        complaintId,
      ),
    ])
      expect(result).toMatchObject({ outcome: 'refused', say: expect.stringMatching(/role/) })
  })
})

test('the floor marks a trial, prompts when it is due, and informs the rider who sits on a tilted saddle', async () => {
  const memberId = await rider()
  const { asked } = await onTrial(memberId)
  await ride(memberId, day(3))
  const classId = await ride(memberId, day(9))
  const ofClass = (await findClass(db, scope, classId))!
  const before = await floorBefore(db, scope, ofClass, true, day(9))
  expect(before.tiles.find(({ bikeId }) => bikeId === 'bike-1')).toMatchObject({
    mark: 'trial',
    watchFor: expect.arrayContaining(['trial: ask now']),
  })
  const { bikes } = await watchData(db, scope, ofClass, day(9))
  expect(bikes.find(({ bikeId }) => bikeId === 'bike-1')).toMatchObject({
    trial: 'trial: ask now',
    watchFor: true,
  })
  expect((await floorBefore(db, scope, ofClass, false, day(9))).tiles[0].mark).not.toBe('trial')
  await endTrial(db, scope, { id: asked.id, outcome: 'keep' }, day(9))
  const over = await watchData(db, scope, ofClass, day(9))
  expect(over.bikes.find(({ bikeId }) => bikeId === 'bike-1')).toMatchObject({ trial: null })
})

test('a bike whose riders feel one side alone is found, and one beside it is not', async () => {
  // A time of its own: the picture tells of twenty weeks before it.
  const now = new Date(-5e11)
  const riders = await Promise.all(Array.from({ length: 14 }, () => rider()))
  for (const [i, memberId] of riders.entries()) {
    const at = new Date(now.getTime() - (20 + 2 * i) * DAY_MS)
    const classId = await ride(memberId, at, 'bike-21')
    await ride(memberId, new Date(at.getTime() + DAY_MS), 'bike-22')
    await ride(memberId, new Date(at.getTime() + 2 * DAY_MS), 'bike-23')
    if (i >= 10) continue
    const felt = { region: 'feltSaddle', sign: 'felt', side: 'left', score: 5 } as const
    await addNote(db, scope, { id: id(), classId, memberId, bikeId: 'bike-21', ...felt, createdAt: at })
  }
  const picture = await studioPicture(db, scope, now)
  expect(picture.rides).toBe(42)
  expect(picture.bikes).toMatchObject([{ number: 21, side: 'left', here: { changed: 10, of: 14 } }])
  expect(picture.complaints).toMatchObject([{ what: 'saddlePressure', count: { changed: 10, of: 14 } }])
  const none = await studioPicture(db, scope, new Date('1999-01-01'))
  expect(none).toMatchObject({ rides: 0, bikes: [], cues: [], complaints: [] })
})
