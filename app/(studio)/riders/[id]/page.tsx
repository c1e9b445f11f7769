import type { Metadata } from 'next'
import { formatMemberMessage } from '@/core/messages/memberPage'
import { describeNote, formatBikeChanged } from '@/core/messages/rider'
import { REFERRAL } from '@/core/watch/comfort'
import { riderSet } from '@/interface/rider/riderSet'
import { RiderView } from '@/interface/rider/RiderView'
import { timelineEntries } from '@/server/pages/timelineEntry'
import { can } from '@/server/accounts/can'
import { requirePermission } from '@/server/accounts/session'
import { findChangeSince } from '@/server/bikes/bikeReadings'
import { availableBikes, listBikes } from '@/server/bikes/bikes'
import { listTypes } from '@/server/bikes/versions'
import { listNotesOfMember } from '@/server/classes/notes'
import { listOwnCues } from '@/server/classes/watch'
import { database } from '@/server/db/connection'
import { leaveForMerged } from '@/server/members/leaveForMerged'
import { findMember } from '@/server/members/members'
import { findLink } from '@/server/memberPage/links'
import { listMessages } from '@/server/memberPage/messages'
import { addressOf, qrSvg } from '@/server/memberPage/qr'
import { TIMELINE_PAGE, currentEntries, listEntries, byDisplayPriority } from '@/server/register/register'
import { riderContext } from '@/server/pages/riderContext'
import { listEvidence } from '@/server/setups/evidence'
import { listOpenSetups } from '@/server/setups/setups'
import { formatDate, formatTime } from '@/server/studio/day'
import { getStudio } from '@/server/studio/studio'

export const metadata: Metadata = { title: 'Rider' }

export default async function RiderPage({ params }: { params: Promise<{ id: string }> }) {
  const person = await requirePermission('seeNumbers')
  const { id } = await params
  const db = database()
  const [studio, member] = await Promise.all([getStudio(db, person), findMember(db, person, id)])
  if (!member) return leaveForMerged(db, person, id)
  const [mayNote, maySetUp] = [can(person, 'seeNotes'), can(person, 'setUpRiders')]
  const [bikes, current, listed, open, notes, types, cues] = await Promise.all([
    listBikes(db, person),
    currentEntries(db, person, [id]),
    listEntries(db, person, id, { limit: TIMELINE_PAGE + 1 }),
    maySetUp ? listOpenSetups(db, person, id) : [],
    mayNote ? listNotesOfMember(db, person, id) : null,
    listTypes(db, person),
    listOwnCues(db, person),
  ])
  const { timeZone } = studio
  // A version in force is sent to the page once, however many numbers are of it.
  const inForce = new Map(types.map((version) => [version.id, version.bikeType]))
  const once = <E extends (typeof current)[number]>(entry: E): E => ({
    ...entry,
    type: inForce.get(entry.typeId) ?? entry.type,
  })
  const entries = listed.map(once)
  const sets = byDisplayPriority(current).map(once)
  const latest = sets[0]
  const now = new Date()
  const [changed, evidence, link, messages] = await Promise.all([
    latest?.bikeId ? findChangeSince(db, person, latest.bikeId, latest.createdAt) : null,
    latest?.setupId && mayNote ? listEvidence(db, person, latest.setupId) : null,
    findLink(db, person, id, now),
    mayNote ? listMessages(db, person, id) : null,
  ])
  const context = maySetUp ? await riderContext(db, person, id, now) : null
  const address = link && addressOf(link)
  return (
    <RiderView
      member={{ ...member, statureMm: mayNote ? member.statureMm : null }}
      maySetUp={maySetUp}
      mayEdit={can(person, 'addMembers')}
      mayMerge={can(person, 'manageStudio')}
      sets={sets.map((entry) => riderSet(entry, { bikes, entries, timeZone }))}
      timeline={{
        entries: timelineEntries(entries.slice(0, TIMELINE_PAGE), timeZone),
        more: entries.length > TIMELINE_PAGE,
      }}
      stop={context?.stop ? { why: context.stop, referral: studio.referral ?? REFERRAL } : null}
      seat={
        context?.seat
          ? {
              bikeId: context.seat.bikeId,
              number: context.seat.number,
              when: `${context.seat.title}, ${formatTime(context.seat.startsAt, timeZone)}`,
            }
          : null
      }
      changed={changed && formatBikeChanged(latest.bikeNumber!, formatDate(changed, timeZone))}
      request={
        latest && evidence
          ? {
              entryId: latest.id,
              seatHeight: latest.marks.seatHeight ?? null,
              bikeType: latest.type,
              bike: latest.machineCalibration ?? {},
              school: studio.school,
              evidence: evidence.map(({ row }) => row),
            }
          : null
      }
      types={types.map(({ lineId, bikeType }) => ({
        lineId,
        bikeType,
        machines: bikes
          .filter((bike) => bike.lineId === lineId)
          .map(({ id: bikeId, number, machineCalibration }) => ({ id: bikeId, number, machineCalibration })),
      }))}
      open={open.map((o) => ({ id: o.id, text: `bike ${o.bikeNumber}, ${formatDate(o.startedAt, timeZone)}` }))}
      bikes={availableBikes(bikes).map((b) => ({ id: b.id, number: b.number, type: b.type.name }))}
      own={
        mayNote
          ? {
              link:
                link && address
                  ? { address, qr: await qrSvg(address), until: formatDate(link.expiresAt, timeZone) }
                  : null,
              messages:
                messages?.map(({ id: messageId, kind, body, createdAt, handledAt }) => ({
                  id: messageId,
                  text: formatMemberMessage(kind, body),
                  when: `${formatDate(createdAt, timeZone)}, ${formatTime(createdAt, timeZone)}`,
                  handled: handledAt !== null || kind === 'home',
                })) ?? null,
            }
          : null
      }
      notes={
        notes?.map(({ createdAt, createdBy, bikeNumber, ...note }) => ({
          id: note.id,
          ...describeNote(note, cues),
          held: note.held,
          when: `${formatDate(createdAt, timeZone)}, ${formatTime(createdAt, timeZone)}`,
          by: createdBy,
          bike: bikeNumber,
        })) ?? null
      }
    />
  )
}
