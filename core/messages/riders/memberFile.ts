import { AXES, type Marks } from '../../base/conventions'
import type { BikeType } from '../../bikes/bike/bike'
import type { HandPosition } from '../../classes/plan/blockWords'
import { exerciseById } from '../../comfort/exercises'
import type { Programme } from '../../comfort/programme/programme'
import type { TrialOutcome } from '../../comfort/changes/trial'
import type { ComplaintName } from '../../comfort/model/causeTable'
import type { Health, Moment, Quality } from '../../comfort/model/complaint'

import type { Evidence } from '../../riders/evidence/registry'
import type { Limit } from '../../riders/limits/limits'
import type { MemberMessageBody, MemberMessageKind } from '../../riders/memberPage/message'
import type { Plan } from '../../riders/plans/plan'
import type { Basis, Certainty, Purpose, Source } from '../../setups/register/entry'
import { formatNote } from '../classes/watch'
import { formatSubject } from '../comfort/programme'
import { formatComplaint, formatWhen, HEALTH_NAME, OUTCOME_TEXT, QUALITY_NAME } from '../comfort/comfort'
import { CERTAINTY_TEXT, formatBasis, PURPOSE_NAME } from '../setups/register'
import { formatDate, formatTime, studioDay } from '../words/dates'
import { evidenceName } from '../words/evidenceName'
import { formatMarks } from '../words/labels'
import { asSentence, capitalized, lowered } from '../words/phrases'
import { formatLimit } from './limits'
import { formatMemberMessage } from './memberPage'
import { formatPlanOnTile } from './plans'

type Side = 'left' | 'right' | 'both'
type Row<Fields> = Readonly<{ createdAt: Date } & Fields>
type Ended = Readonly<{ endedAt: Date | null }>

/** All that a studio holds about one member, as far as it is worded here; keys of rows are the database's ids. */
export type MemberRows = Readonly<{
  members: readonly Row<{ name: string; number: string | null; email: string | null; statureMm: number | null }>[]
  memberMerges: readonly Row<{ name: string }>[]
  limits: readonly Row<{ body: Limit } & Ended>[]
  plans: readonly Row<{ body: Plan } & Ended>[]
  programmes: readonly Row<{ body: Programme } & Ended>[]
  riderFiles: readonly Row<{ content: Readonly<{ studio: string; body: unknown }>; isMeasured: boolean }>[]
  register: readonly Row<{
    typeId: string
    bikeId: string | null
    marks: Marks
    purpose: Purpose
    certainty: Certainty
    source: Source
    basis: Basis
  }>[]
  setups: readonly Readonly<{ id: string; bikeId: string; typeId: string; startedAt: Date; finishedAt: Date | null }>[]
  evidence: readonly Row<{ id: string; setupId: string; row: Evidence }>[]
  withdrawals: readonly Readonly<{ evidenceId: string }>[]
  notes: readonly Row<{
    sign: string
    region: string
    side: Side
    score: number | null
    hands: HandPosition | null
    classId: string | null
    withdrawnAt: Date | null
  }>[]
  assignments: readonly Row<{ classId: string; bikeId: string }>[]
  followUps: readonly Row<{ said: string }>[]
  memberMessages: readonly Row<{ kind: MemberMessageKind; body: MemberMessageBody }>[]
  complaints: readonly Row<{
    what: ComplaintName
    side: Side | null
    strength: number
    moment: Moment | null
    lasts: boolean | null
    quality: readonly Quality[]
    health: readonly Health[]
    line: string
    handedTo: string | null
  }>[]
  trials: readonly Readonly<{ id: string; said: string; startedAt: Date; outcome: TrialOutcome | null }>[]
  trialRatings: readonly Row<{ trialId: string; rating: number }>[]
}>

/** What the ids in those rows mean. */
export type MemberFileNames = Readonly<{
  timeZone: string
  bikes: Readonly<Record<string, Readonly<{ number: number; type: string }>>>
  bikeTypes: Readonly<Record<string, BikeType>>
  classes: Readonly<Record<string, Readonly<{ title: string; startsAt: Date }>>>
}>

/** A part of the readable file: its heading, and lines with their day. */
export type MemberFilePart = Readonly<{ title: string; lines: readonly Readonly<{ date: string; text: string }>[] }>

export const MEMBER_FILE_TEXT = Object.freeze({
  title: (name: string): string => `What is stored about ${name}`,
  made: (studio: string, date: string): string => `${studio}, ${date}`,
  nothing: 'Nothing.',
  page: (page: number, of: number): string => `${page} / ${of}`,
})

/** Every row in words, by what it is about, the oldest first; parts without rows stay, and are empty. */
export function describeMemberFile(rows: MemberRows, names: MemberFileNames): MemberFilePart[] {
  const { timeZone } = names
  const part = <R>(
    title: string,
    of: readonly R[],
    at: (row: R) => Date,
    text: (row: R) => string,
  ): MemberFilePart => ({
    title,
    lines: of
      .toSorted((a, b) => at(a).getTime() - at(b).getTime())
      .map((row) => ({ date: formatDate(at(row), timeZone), text: asSentence(capitalized(text(row))) })),
  })
  const made = ({ createdAt }: Readonly<{ createdAt: Date }>) => createdAt
  const bike = (id: string | null) => {
    const found = id === null ? undefined : names.bikes[id]
    return found ? `bike ${found.number}, ${found.type}` : 'no bike'
  }
  const inClass = (id: string | null) => {
    const found = id === null ? undefined : names.classes[id]
    return found ? `${found.title}, ${formatTime(found.startsAt, timeZone)}` : ''
  }
  const withdrawn = new Set(rows.withdrawals.map(({ evidenceId }) => evidenceId))
  const seenIn = (setupId: string, bikeType: BikeType) =>
    rows.evidence
      .filter((one) => one.setupId === setupId)
      .map(({ id, row }) => `${formatEvidence(row, bikeType)}${withdrawn.has(id) ? ' (withdrawn)' : ''}`)
  return [
    part('Who', rows.members, made, ({ name, number, email, statureMm }) =>
      join([name, number && `number ${number}`, email, statureMm && `height ${statureMm} mm`]),
    ),
    part('Entered twice, and merged', rows.memberMerges, made, ({ name }) => name),
    part('Limits', rows.limits, made, ({ body, createdAt, endedAt }) =>
      join([formatLimit(body, studioDay(createdAt, timeZone)), endedAt && `ended ${formatDate(endedAt, timeZone)}`]),
    ),
    part('Plans', rows.plans, made, ({ body, endedAt }) =>
      join([formatPlanOnTile(body, null), body.due, endedAt && `ended ${formatDate(endedAt, timeZone)}`]),
    ),
    part('Exercises', rows.programmes, made, ({ body: { about, exercises, weeks }, endedAt }) =>
      join([
        `for ${formatSubject(about)}`,
        exercises.map((one) => exerciseById(one)?.name ?? one).join(' and '),
        `${weeks} weeks`,
        endedAt && `ended ${formatDate(endedAt, timeZone)}`,
      ]),
    ),
    part('Brought along', rows.riderFiles, made, ({ content: { studio, body }, isMeasured }) =>
      join([`own file from ${studio}`, isMeasured ? 'measured' : 'told', body !== null && 'with the body as believed']),
    ),
    part('Numbers', rows.register, made, ({ typeId, bikeId, marks, purpose, certainty, source, basis }) => {
      const type = names.bikeTypes[typeId]
      const where = bikeId && names.bikes[bikeId] ? `${type.name}, bike ${names.bikes[bikeId].number}` : type.name
      const why = lowered(formatBasis(source, basis, null))
      return join([
        `${where}: ${formatMarks(type, marks)}`,
        purpose !== 'usual' && PURPOSE_NAME[purpose].toLowerCase(),
        CERTAINTY_TEXT[certainty],
        why,
      ])
    }),
    part(
      'Set-ups, and what was seen and measured',
      rows.setups,
      ({ startedAt }) => startedAt,
      ({ id, bikeId, typeId, finishedAt }) =>
        join([bike(bikeId), !finishedAt && 'left open', ...seenIn(id, names.bikeTypes[typeId])]),
    ),
    part('Classes', rows.assignments, made, ({ classId, bikeId }) => join([inClass(classId), bike(bikeId)])),
    part('Noted in class', rows.notes, made, (note) =>
      join([formatNote(note), inClass(note.classId), note.withdrawnAt && 'taken back']),
    ),
    part('Lines after class', rows.followUps, made, ({ said }) => said),
    part('Complaints', rows.complaints, made, (one) =>
      join([
        formatComplaint(one),
        lowered(formatWhen(one)),
        ...one.quality.map((quality) => lowered(QUALITY_NAME[quality])),
        ...one.health.map((health) => lowered(HEALTH_NAME[health])),
        one.line && `“${one.line}”`,
        one.handedTo && `referred; told: ${one.handedTo}`,
      ]),
    ),
    part(
      'Changes on trial',
      rows.trials,
      ({ startedAt }) => startedAt,
      ({ id, said, outcome }) => {
        const ratings = rows.trialRatings.filter(({ trialId }) => trialId === id).map(({ rating }) => rating)
        return join([
          said.replace(/\.$/, ''),
          ratings.length > 0 && `rated ${ratings.join(', ')} of 10`,
          outcome && OUTCOME_TEXT[outcome],
        ])
      },
    ),
    part('From the member’s own page', rows.memberMessages, made, ({ kind, body }) => formatMemberMessage(kind, body)),
  ]
}

const join = (parts: readonly (string | number | boolean | null | undefined)[]): string =>
  parts.filter(Boolean).join('; ')

/** "knee angle goniometer 33°, at 8 · B · 5 · 1": the name of what was seen, and its own figures and words. */
function formatEvidence(row: Evidence, bikeType: BikeType): string {
  const { kind, ...fields } = row
  const words = Object.entries(fields).flatMap(([field, value]) => formatField(field, value, bikeType))
  return [evidenceName(kind), words.join(', ')].filter(Boolean).join(' ')
}

const UNITS: Readonly<Record<string, string>> = { mm: ' mm', deg: '°' }
/** "soleMm" as "sole mm" */
const asWords = (field: string): string => field.replace(/([A-Z])/g, (letter) => ` ${letter.toLowerCase()}`)

function formatField(field: string, value: unknown, bikeType: BikeType): string[] {
  if (value === undefined || value === null || value === false) return []
  if (value === true) return [asWords(field)]
  if (typeof value === 'string') return [value]
  if (typeof value === 'number') return [field in UNITS ? `${value}${UNITS[field]}` : `${asWords(field)} ${value}`]
  const isMarks = Object.keys(value as object).every((key) => (AXES as readonly string[]).includes(key))
  return [isMarks ? `at ${formatMarks(bikeType, value as Marks)}` : JSON.stringify(value)]
}
