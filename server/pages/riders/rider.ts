import { findChangeSince } from '../../bikes/bikeReadings'
import { listBikes } from '../../bikes/bikes'
import { listTypes } from '../../bikes/versions'
import { listNotesOfMember } from '../../classes/notes'
import { listOwnCues } from '../../classes/watch'
import { can } from '../../platform/accounts/can'
import type { Scope } from '../../platform/accounts/scope'
import type { DbExecutor } from '../../platform/db/connection'
import { findLink } from '../../riders/memberPage/links'
import { listMessages } from '../../riders/memberPage/messages'
import { addressOf, qrSvg } from '../../riders/memberPage/qr'
import { consentOf, currentWording } from '../../riders/consent'
import { listLimits, todayOf } from '../../riders/limits'
import { plansOf } from './plans'
import { findMember } from '../../riders/members/members'
import { listEvidence } from '../../setups/evidence'
import {
  byDisplayPriority,
  currentEntries,
  findEntry,
  listEntries,
  TIMELINE_PAGE,
  type RegisterEntry,
} from '../../setups/register'
import { listOpenSetups } from '../../setups/setups'
import { getStudio } from '../../studio/studio'
import { riderContext } from '../comfort/riderContext'
import { riderProgrammes } from '../comfort/programmes'

/** One rider as far as the user's role sees them; null where the studio has no such member. */
export type RiderPage = NonNullable<Awaited<ReturnType<typeof riderPage>>>

export async function riderPage(db: DbExecutor, scope: Scope, id: string, now: Date) {
  const [studio, member] = await Promise.all([getStudio(db, scope), findMember(db, scope, id)])
  if (!member) return null
  const [seesNotes, setsUp] = [can(scope, 'seeNotes'), can(scope, 'setUpRiders')]
  const [bikes, current, listed, open, notes, types, cues] = await Promise.all([
    listBikes(db, scope),
    currentEntries(db, scope, [id]),
    listEntries(db, scope, id, { limit: TIMELINE_PAGE + 1 }),
    setsUp ? listOpenSetups(db, scope, id) : [],
    seesNotes ? listNotesOfMember(db, scope, id) : null,
    listTypes(db, scope),
    listOwnCues(db, scope),
  ])
  // Entries of a version in force share its definition, so that it is sent to the page once.
  const inForce = new Map(types.map((version) => [version.id, version.bikeType]))
  const withSharedType = (entry: RegisterEntry): RegisterEntry => ({
    ...entry,
    type: inForce.get(entry.typeId) ?? entry.type,
  })
  const entries = listed.map(withSharedType)
  const sets = byDisplayPriority(current).map(withSharedType)
  const latest = sets.at(0)
  const setupId = await setupBehind(db, scope, latest)
  const [changedAt, evidence, link, messages] = await Promise.all([
    latest?.bikeId ? findChangeSince(db, scope, latest.bikeId, latest.createdAt) : null,
    setupId && seesNotes ? listEvidence(db, scope, setupId) : null,
    findLink(db, scope, id, now),
    seesNotes ? listMessages(db, scope, id) : null,
  ])
  const address = link && addressOf(link)
  return {
    timeZone: studio.timeZone,
    school: studio.school,
    referral: studio.referral,
    seesNotes,
    setsUp,
    edits: can(scope, 'addMembers'),
    confirms: can(scope, 'confirmNumbers'),
    merges: can(scope, 'manageStudio'),
    seesFile: can(scope, 'managePrivacy'),
    member: { ...member, statureMm: seesNotes ? member.statureMm : null },
    bikes,
    types,
    cues,
    /** Sets in force, the one to show first first. */
    sets,
    /** The latest entries of the register, and whether there are older ones. */
    entries,
    hasMore: listed.length > TIMELINE_PAGE,
    open,
    notes,
    /** When the machine of the first set was found changed since; null while it is as it was. */
    changedAt,
    /** Of the first set; null where the role sees none. */
    evidence: evidence?.map(({ row }) => row) ?? null,
    link: seesNotes && link && address ? { address, qr: await qrSvg(address), expiresAt: link.expiresAt } : null,
    messages,
    /** What limits the rider; null where the role sees none. */
    limits: seesNotes ? await listLimits(db, scope, [id]) : null,
    /** What is to be done for the rider later; null where the role sees none. */
    plans: seesNotes ? await plansOf(db, scope, [id], now) : null,
    /** Exercises given to the rider; null where the role sees none. */
    programmes: notes && (await riderProgrammes(db, scope, id, notes, now)),
    /** Whether the rider agreed to notes, and the question; null where the role sees none. */
    consent: seesNotes
      ? { given: await consentOf(db, scope, id), wording: (await currentWording(db, scope)).wording }
      : null,
    today: await todayOf(db, scope, now),
    context: setsUp ? await riderContext(db, scope, id, now) : null,
  }
}

/** Entries looked through for the set-up behind numbers. */
const MAX_BEHIND = 20

/** The set-up that numbers rest on: their own, or that of the numbers they were moved or restored from. */
async function setupBehind(db: DbExecutor, scope: Scope, entry: RegisterEntry | undefined): Promise<string | null> {
  let behind: RegisterEntry | null = entry ?? null
  for (let steps = 0; steps < MAX_BEHIND && behind && ['moved', 'restored'].includes(behind.source); steps++)
    behind = behind.fromId ? await findEntry(db, scope, behind.fromId) : null
  return behind?.setupId ?? null
}
