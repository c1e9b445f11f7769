import { formatBikeChanged } from '@/core/messages/bikes/bikeNames'
import { formatMemberMessage } from '@/core/messages/riders/memberPage'
import { stopProps } from '../../comfort/limits/stopProps'
import { formatLimit } from '@/core/messages/riders/limits'
import { programmesText } from '../../comfort/programme/programmeText'
import { consentText } from '../../comfort/limits/consentText'
import { limitEffects } from '@/core/riders/limits/limits'
import { describeNote } from '@/core/messages/riders/rider'
import { formatDate, formatTime } from '@/core/messages/words/dates'
import { availableBikes } from '@/server/bikes/bikes'
import type { RiderPage } from '@/server/pages/riders/rider'
import { TIMELINE_PAGE } from '@/server/setups/register'
import { riderSet } from './riderSet'
import type { RiderViewProps } from './RiderView'
import { timelineEntries } from './timelineEntries'

/** One rider in words, times on the studio's clock. */
export function riderProps(page: RiderPage): RiderViewProps {
  const { timeZone, member, sets, entries, hasMore, bikes, context, changedAt, open, notes, cues } = page
  const date = (at: Date) => formatDate(at, timeZone)
  const dateAndTime = (at: Date) => `${date(at)}, ${formatTime(at, timeZone)}`
  return {
    member,
    maySetUp: page.setsUp,
    mayEdit: page.edits,
    mayConfirm: page.confirms,
    mayMerge: page.merges,
    seesFile: page.seesFile,
    sets: sets.map((entry) => riderSet(entry, { bikes, entries, timeZone })),
    timeline: { entries: timelineEntries(entries.slice(0, TIMELINE_PAGE), timeZone), more: hasMore },
    stop: stopProps(member.id, context, page.referral),
    seat: context?.seat
      ? {
          bikeId: context.seat.bikeId,
          number: context.seat.number,
          when: `${context.seat.title}, ${formatTime(context.seat.startsAt, timeZone)}`,
        }
      : null,
    changed: changedAt && formatBikeChanged(sets[0].bikeNumber!, date(changedAt)),
    request: requestOf(page),
    types: page.types.map(({ lineId, bikeType }) => ({
      lineId,
      bikeType,
      machines: bikes
        .filter((bike) => bike.lineId === lineId)
        .map(({ id, number, machineCalibration }) => ({ id, number, machineCalibration })),
    })),
    open: open.map(({ id, bikeNumber, startedAt }) => ({ id, text: `bike ${bikeNumber}, ${date(startedAt)}` })),
    bikes: availableBikes(bikes).map(({ id, number, type }) => ({ id, number, type: type.name })),
    limits:
      page.limits?.map(({ id, limit }) => ({
        id,
        text: formatLimit(limit, page.today),
        waits: limitEffects([limit], page.today).stop !== null,
      })) ?? null,
    plans: page.plans?.map(({ id, kind, text, isDue }) => ({ id, kind, text, isDue })) ?? null,
    consent: page.consent && consentText(page.consent, timeZone),
    programmes: page.programmes && programmesText(page.programmes, timeZone),
    today: page.today,
    own: ownPage(page, date, dateAndTime),
    notes:
      notes?.map(({ createdAt, createdBy, bikeNumber, ...note }) => ({
        id: note.id,
        sign: note.sign,
        ...describeNote(note, cues),
        held: note.held,
        when: dateAndTime(createdAt),
        by: createdBy,
        bike: bikeNumber,
      })) ?? null,
  }
}

/** What the chance of the first set is computed from; null without evidence. */
function requestOf({ sets: [latest], evidence, school }: RiderPage): RiderViewProps['request'] {
  if (!latest || !evidence) return null
  return {
    entryId: latest.id,
    seatHeight: latest.marks.seatHeight ?? null,
    bikeType: latest.type,
    bike: latest.machineCalibration ?? {},
    school,
    evidence,
  }
}

type FormatMoment = (at: Date) => string

function ownPage(
  { seesNotes, link, messages }: RiderPage,
  date: FormatMoment,
  dateAndTime: FormatMoment,
): RiderViewProps['own'] {
  if (!seesNotes) return null
  return {
    link: link && { address: link.address, qr: link.qr, until: date(link.expiresAt) },
    messages:
      messages?.map(({ id, kind, body, createdAt, handledAt }) => ({
        id,
        text: formatMemberMessage(kind, body),
        when: dateAndTime(createdAt),
        handled: handledAt !== null || kind === 'home',
      })) ?? null,
  }
}
