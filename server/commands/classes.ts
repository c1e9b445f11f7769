import { Type } from '@sinclair/typebox'
import { parse } from 'csv-parse/sync'
import type { Block } from '../../core/classes/plan/blocks'
import { readPlanRows } from '../../core/classes/plan/planFile'
import { OVERWRITTEN_BY_SOURCE } from '../../core/messages/classes/timetable'
import type { Refusal } from '../../core/messages/refusals'
import { formatPlanFault } from '../../core/messages/classes/watch'
import { shapeIssues } from '../../core/operations/dispatch'
import { closed, oneOf } from '../../core/base/schema'
import { AFTER_KINDS, FOLLOW_UPS, type FollowUpState } from '../../core/classes/watch/afterList'
import { signNamed } from '../../core/classes/watch/signs'
import type { Scope } from '../platform/accounts/scope'
import { readClassFields, type ClassFieldValues } from '../classes/classFields'
import * as classes from '../classes/classes'
import * as followUps from '../classes/followUps'
import * as timetable from '../classes/importTimetable'
import { publishClassEvent } from '../classes/live'
import { setCueText } from '../classes/watch'
import type { DbExecutor } from '../platform/db/connection'
import { partId } from '../platform/ids'
import { findRoom, listRooms } from '../classes/rooms/rooms'
import { dayAfter, momentAt } from '../studio/day'
import { formatDate, formatTime, studioDay } from '../../core/messages/words/dates'
import { listTeachers } from '../studio/people'
import { getStudio } from '../studio/studio'
import {
  checkedInRun,
  defineCommand,
  defineQuery,
  idOrNull,
  idSchema,
  SAVED,
  refused,
  typedText,
} from './defineCommand'

const MAX_WEEKS = 52
const MAX_TIMETABLE_LENGTH = 2_000_000
const MAX_PLAN_LENGTH = 200_000
const MAX_CUE_LENGTH = 200

const fields = {
  title: typedText,
  day: typedText,
  time: typedText,
  minutes: Type.Number(),
  roomId: idOrNull,
  teacherId: idOrNull,
}
const weeksSchema = Type.Integer({ minimum: 1, maximum: MAX_WEEKS })

/** Adds a class, or one each week at the same time on the studio's clock; all or none. */
export const addClass = defineCommand({
  name: 'classes.addClass',
  permission: 'planClasses',
  ownsId: true,
  schema: closed({ ...fields, weeks: weeksSchema }),
  run: async (tx, scope, { weeks, ...sent }, { id, now }) => {
    const read = readClassFields(sent)
    if ('code' in read) return refused(read)
    const { title, day, time, minutes, roomId, teacherId } = read
    if (roomId !== null && !(await findRoom(tx, scope, roomId))) return refused({ code: 'noSuchRoom' })
    const teachers = teacherId === null ? [] : await listTeachers(tx, scope)
    if (teacherId !== null && !teachers.some((one) => one.id === teacherId)) return refused({ code: 'noSuchColleague' })
    const { timeZone } = await getStudio(tx, scope)
    const added = Array.from({ length: weeks }, (_, week) => {
      const startsAt = momentAt(dayAfter(day, 7 * week), time, timeZone)
      const endsAt = new Date(startsAt.getTime() + minutes * 60_000)
      return { id: week === 0 ? id : partId(id, week), title, startsAt, endsAt, roomId, teacherId }
    })
    const { outcome } = await classes.addClasses(tx, scope, added, now)
    return outcome === 'kept' ? SAVED : refused({ code: 'idTaken' })
  },
})

/** Changes a class from what its form showed to what it shows now. */
export const changeClass = defineCommand({
  name: 'classes.changeClass',
  permission: 'planClasses',
  schema: closed({ classId: idSchema, from: closed(fields), to: closed(fields) }),
  run: async (tx, scope, { classId, from, to }, { afterCommit }) => {
    const [before, after] = [await readFacts(tx, scope, from), await readFacts(tx, scope, to)]
    if ('code' in before) return refused({ code: 'malformed' })
    if ('code' in after) return refused(after)
    const { outcome } = await classes.changeClassFacts(tx, scope, classId, { from: before, to: after })
    if (outcome !== 'kept') return refused({ code: outcome === 'gone' ? 'noSuchClass' : 'classChanged' })
    afterCommit(() => publishClassEvent(classId, null))
    return SAVED
  },
})

async function readFacts(db: DbExecutor, scope: Scope, sent: ClassFieldValues): Promise<classes.ClassFacts | Refusal> {
  const read = readClassFields(sent)
  if ('code' in read) return read
  const { title, day, time, minutes, roomId, teacherId } = read
  const { timeZone } = await getStudio(db, scope)
  const startsAt = momentAt(day, time, timeZone)
  if (Number.isNaN(startsAt.getTime())) return { code: 'malformed' }
  return { title, startsAt, endsAt: new Date(startsAt.getTime() + minutes * 60_000), roomId, teacherId }
}

/** Adds a class again in the weeks after it, at the same time on the studio's clock. */
export const repeatClass = defineCommand({
  name: 'classes.repeatClass',
  permission: 'planClasses',
  ownsId: true,
  schema: closed({ classId: idSchema, weeks: weeksSchema }),
  run: async (tx, scope, { classId, weeks }, { id, now }) => {
    const of = await classes.findClass(tx, scope, classId)
    if (!of || of.openDay !== null) return refused({ code: 'noSuchClass' })
    const { timeZone } = await getStudio(tx, scope)
    const [day, time] = [studioDay(of.startsAt, timeZone), formatTime(of.startsAt, timeZone)]
    const repeated = Array.from({ length: weeks }, (_, i) => ({
      id: partId(id, i + 1),
      startsAt: momentAt(dayAfter(day, 7 * (i + 1)), time, timeZone),
    }))
    const { outcome } = await classes.repeatClass(tx, scope, of, repeated, now)
    return outcome === 'kept' ? SAVED : refused({ code: 'idTaken' })
  },
})

/** Calls a class off, or takes that back; its list and notes stay. */
export const cancelClass = defineCommand({
  name: 'classes.cancelClass',
  permission: 'planClasses',
  schema: closed({ classId: idSchema, cancelled: Type.Boolean() }),
  run: async (tx, scope, { classId, cancelled }, { now, afterCommit }) => {
    const isFound = await classes.changeClass(tx, scope, classId, { cancelledAt: cancelled ? now : null })
    if (!isFound) return refused({ code: 'noSuchClass' })
    afterCommit(() => publishClassEvent(classId, null))
    return SAVED
  },
})

/** A class as its form shows it, with what it can be changed to. `fromOutside`: a hint for an imported class. */
export const classForEdit = defineQuery({
  name: 'classes.classForEdit',
  permission: 'planClasses',
  schema: closed({ classId: idSchema }),
  run: async (db, scope, { classId }) => {
    const of = await classes.findClass(db, scope, classId)
    if (!of || of.openDay !== null) return refused({ code: 'noSuchClass' })
    const { timeZone } = await getStudio(db, scope)
    const facts: ClassFieldValues = {
      title: of.title,
      day: studioDay(of.startsAt, timeZone),
      time: formatTime(of.startsAt, timeZone),
      minutes: Math.round((of.endsAt.getTime() - of.startsAt.getTime()) / 60_000),
      roomId: of.roomId,
      teacherId: of.teacherId,
    }
    const teachers = (await listTeachers(db, scope)).map(({ id, name }) => ({ id, name }))
    // Its teacher stays on the list after their access ended.
    const isListed = of.teacherId === null || teachers.some(({ id }) => id === of.teacherId)
    return {
      outcome: 'found',
      facts,
      rooms: (await listRooms(db, scope)).map(({ id, name }) => ({ id, name })),
      teachers: isListed ? teachers : [...teachers, { id: of.teacherId!, name: of.teacher ?? '' }],
      cancelled: of.cancelledAt !== null,
      fromOutside: OVERWRITTEN_BY_SOURCE[of.source] ?? null,
    }
  },
})

/** Hands and doors of a class; the places do not change, the queue does. */
export const changeHands = defineCommand({
  name: 'classes.changeHands',
  permission: 'planClasses',
  schema: closed({
    classId: idSchema,
    hands: Type.Integer({ minimum: 1, maximum: 20 }),
    doorsMin: Type.Integer({ minimum: 0, maximum: 180 }),
  }),
  run: async (tx, scope, { classId, hands, doorsMin }, { afterCommit }) => {
    if (!(await classes.findClass(tx, scope, classId))) return refused({ code: 'noSuchClass' })
    await classes.changeClass(tx, scope, classId, { hands, doorsMin })
    afterCommit(() => publishClassEvent(classId, null))
    return SAVED
  },
})

/** Writes the blocks of a class; an empty list removes its plan. */
export const saveBlocks = defineCommand({
  name: 'classes.saveBlocks',
  permission: 'planClasses',
  schema: closed({ classId: idSchema, blocks: checkedInRun<readonly Block[]>() }),
  run: async (tx, scope, { classId, blocks }, { afterCommit }) => {
    if (!(await classes.findClass(tx, scope, classId))) return refused({ code: 'noSuchClass' })
    if (shapeIssues('blocks', blocks).length > 0) return refused({ code: 'badBlocks' })
    await classes.changeClass(tx, scope, classId, { blocks: blocks.length > 0 ? blocks : null })
    afterCommit(() => publishClassEvent(classId, null))
    return SAVED
  },
})

/** Reads a plan from a file's text, JSON or CSV; `faults` are its unreadable rows in words. */
export const readPlan = defineQuery({
  name: 'classes.readPlan',
  permission: 'planClasses',
  schema: closed({ text: Type.String() }),
  run: async (_, __, { text }) => {
    const read = text.length > MAX_PLAN_LENGTH ? null : planFrom(text)
    if (!read || shapeIssues('blocks', read.blocks).length > 0) return refused({ code: 'badBlocks' })
    return { outcome: 'found', ...read }
  },
})

function planFrom(text: string): Readonly<{ blocks: readonly Block[]; faults: readonly string[] }> | null {
  try {
    if (/^\s*[[{]/.test(text)) {
      const read = JSON.parse(text) as unknown
      const blocks = Array.isArray(read) ? read : (read as { blocks?: unknown }).blocks
      return { blocks: blocks as Block[], faults: [] }
    }
    const delimiter = text.split('\n')[0].includes(';') ? ';' : ','
    const rows: string[][] = parse(text, { bom: true, delimiter, relax_column_count: true, skip_empty_lines: true })
    const { blocks, faults } = readPlanRows(rows)
    return blocks.length === 0 ? null : { blocks, faults: faults.map(formatPlanFault) }
  } catch {
    return null
  }
}

/** Rewords a cue for the whole studio; null goes back to the product's words. */
export const changeCue = defineCommand({
  name: 'classes.changeCue',
  permission: 'planClasses',
  schema: closed({ sign: typedText, cue: Type.Unsafe<string | null>({ type: ['string', 'null'], maxLength: 2000 }) }),
  run: async (tx, scope, { sign, cue }, { now }) => {
    if (!signNamed(sign)) return refused({ code: 'malformed' })
    const words = cue?.trim() ?? null
    if (words !== null && words.length > MAX_CUE_LENGTH) return refused({ code: 'cueTooLong' })
    await setCueText(tx, scope, sign, words || null, now)
    return SAVED
  },
})

/** Records what happens next with a line of the list after a class; with state null it is open again. */
export const followUpLine = defineCommand({
  name: 'classes.followUpLine',
  permission: 'writeNotes',
  schema: closed({
    classId: idSchema,
    memberId: idSchema,
    kind: oneOf(AFTER_KINDS),
    state: Type.Unsafe<FollowUpState | null>({ enum: [...FOLLOW_UPS, null] }),
    handedTo: idOrNull,
    said: typedText,
  }),
  run: async (tx, scope, { classId, memberId, kind, state, handedTo, said }, { now }) => {
    if (!(await classes.findClass(tx, scope, classId))) return refused({ code: 'noSuchClass' })
    const content = { state, handedTo, said }
    const { outcome } = await followUps.followUp(tx, scope, { classId, memberId, kind }, content, now)
    return outcome === 'kept' ? SAVED : refused({ code: state === 'handed' ? 'noSuchColleague' : 'noSuchMember' })
  },
})

const timetableText = closed({ text: Type.String({ maxLength: MAX_TIMETABLE_LENGTH }) })

/** What a calendar or a list of classes contains. */
export const readTimetable = defineQuery({
  name: 'classes.readTimetable',
  permission: 'planClasses',
  schema: timetableText,
  run: async (db, scope, { text }, now) => ({ outcome: 'found', ...(await timetableOf(db, scope, text, false, now)) }),
})

/** Imports a calendar or a list of classes. */
export const importTimetable = defineCommand({
  name: 'classes.importTimetable',
  permission: 'planClasses',
  inTransaction: false,
  schema: timetableText,
  run: async (db, scope, { text }, { now }) => ({
    outcome: 'kept',
    ...(await timetableOf(db, scope, text, true, now)),
  }),
})

async function timetableOf(
  db: Parameters<typeof timetable.importTimetable>[0],
  scope: Scope,
  text: string,
  take: boolean,
  now: Date,
) {
  const { timeZone } = await getStudio(db, scope)
  const { found, faults, taken } = await timetable.importTimetable(db, scope, { text, timeZone, take }, now)
  return {
    found: found.map(({ startsAt, ...one }) => ({
      ...one,
      when: `${formatDate(startsAt, timeZone)}, ${formatTime(startsAt, timeZone)}`,
    })),
    faults,
    taken,
  }
}
