import type { Bike, BikeType } from '../../../core/bikes/bike/bike'
import type { BikeEquipment } from '../../../core/bikes/bike/equipment'
import type { Marks } from '../../../core/base/conventions'
import { progressOf, type ExerciseProgress } from '../../../core/comfort/programme/programme'
import { riderFileContents, type FileContents } from '../../files/riderFile/make'
import { isErrorResponse } from '../../../core/operations/errorResponse'
import type { Recommendation } from '../../../core/operations/requests/recommend'
import type { TranslateResponse } from '../../../core/operations/requests/translate'
import type { Rider } from '../../../core/riders/kinematics/pose'
import type { SelfAdjustmentRange } from '../../../core/setups/recommend/request/selfAdjustment'
import type { Certainty, Purpose } from '../../../core/setups/register/entry'
import { MINUTES_AT_THE_BIKE } from '../../../core/riders/memberPage/message'
import type { Scope } from '../../platform/accounts/scope'
import { listTypes } from '../../bikes/versions'
import { runningTrials, type Trial } from '../../comfort/trials'
import { listProgrammes, type StoredProgramme } from '../../comfort/programmes'
import { stopsOf } from '../../comfort/stops'
import { effectsOfLimits, todayOf } from '../../riders/limits'
import { compute } from '../../platform/compute/pool'
import type { DbExecutor } from '../../platform/db/connection'
import { currentEntries } from '../../setups/register'
import { recommendationOf } from '../setups/recommendationOf'
import { getStudio } from '../../studio/studio'
import { consentOf, currentWording, type Consent } from '../../riders/consent'
import type { LinkOwner } from '../../riders/memberPage/links'
import { latestHomeMeasures } from '../../riders/memberPage/messages'

/** A set of numbers for the member: without health data. */
export type MemberSet = Readonly<{
  id: string
  type: BikeType
  closing: BikeEquipment['closing']
  purpose: Purpose
  marks: Marks
  certainty: Certainty
  at: Date
  tryAlone: SelfAdjustmentRange
  bike: Bike
  /** The lengths to draw the member with; null by a link to the numbers alone, and where they were not set up here. */
  rider: Rider | null
}>

/** First marks on a type, before anybody looked. */
export type FirstMarks = Readonly<{ type: BikeType; closing: BikeEquipment['closing']; marks: Marks }>

export type MemberPageData = Readonly<{
  studio: Readonly<{ name: string; timeZone: string; referral: string | null }>
  name: string
  sets: readonly MemberSet[]
  /** Where there are no numbers yet: what was measured at home, and what it comes to. */
  first: Readonly<{ measured: boolean; minutes: number; marks: readonly FirstMarks[] }> | null
  /** Changes that are tried now; none by a link to the numbers alone. */
  trials: readonly Trial[]
  /** Exercises that run, or that a red flag stopped; none by a link to the numbers alone. */
  programmes: readonly OwnProgrammeData[]
  /** Whether the link opens the member's story. */
  hasStory: boolean
  /** Whether the link gives out all that is stored about the member. */
  hasFile: boolean
  /** What the member may take to another studio; null by a link to the numbers alone, and without numbers. */
  take: FileContents | null
  /** The member's consent to notes, and its wording. */
  consent: Readonly<{ given: Consent | null; wording: string }>
}>

/** Exercises as their rider sees them. */
export type OwnProgrammeData = StoredProgramme &
  Readonly<{
    progress: readonly ExerciseProgress[]
    /** On the studio's clock, YYYY-MM-DD. */
    today: string
  }>

/** Nobody waits longer for what they may try. */
const PATIENCE_MS = 8000

/** The scope of a member's link: no user. */
export const scopeOf = ({ studioId }: Pick<LinkOwner, 'studioId'>): Scope => ({ studioId, userId: '', role: 'desk' })

/** What a member's own page shows. */
export async function memberPageData(db: DbExecutor, owner: LinkOwner, now: Date): Promise<MemberPageData> {
  const scope = scopeOf(owner)
  const [studio, entries, types, trials] = await Promise.all([
    getStudio(db, scope),
    currentEntries(db, scope, [owner.memberId]),
    listTypes(db, scope),
    owner.opens === 'everything' ? runningTrials(db, scope, [owner.memberId], now) : [],
  ])
  const closingOf = (lineId: string) => types.find((type) => type.lineId === lineId)?.equipment.closing ?? {}
  // Nothing is tried alone with an open red flag, or with a heart condition, a recent operation or a pregnancy.
  const stops = await stopsOf(db, scope, [owner.memberId], now)
  const limits = (await effectsOfLimits(db, scope, [owner.memberId], now)).get(owner.memberId)
  const mayChange = stops.size === 0 && (limits?.health.length ?? 0) === 0
  const sets = await Promise.all(
    entries.map(async (entry) => {
      const found = entry.source === 'setUp' && entry.setupId ? await recommendationOf(db, scope, entry) : null
      return {
        id: entry.id,
        type: entry.type,
        bike: entry.machineCalibration ?? {},
        closing: closingOf(entry.lineId),
        purpose: entry.purpose,
        marks: entry.marks,
        certainty: entry.certainty,
        at: entry.sinceAt,
        tryAlone: (mayChange && found?.tryAlone) || {},
        rider: owner.opens === 'everything' ? found && lengthsOf(found) : null,
      }
    }),
  )
  return {
    studio: { name: studio.name, timeZone: studio.timeZone, referral: studio.referral },
    name: owner.name,
    sets,
    first: sets.length > 0 ? null : await firstMarks(db, scope, owner.memberId, types),
    trials,
    programmes: owner.opens === 'everything' ? await ownProgrammes(db, owner, now) : [],
    hasStory: owner.opens === 'everything',
    hasFile: owner.opens === 'everything',
    take:
      owner.opens === 'everything' && sets.length > 0 ? await riderFileContents(db, scope, owner.memberId, now) : null,
    consent: {
      given: await consentOf(db, scope, owner.memberId),
      wording: (await currentWording(db, scope)).wording,
    },
  }
}

async function ownProgrammes(db: DbExecutor, owner: LinkOwner, now: Date): Promise<OwnProgrammeData[]> {
  const today = await todayOf(db, scopeOf(owner), now)
  return (await listProgrammes(db, scopeOf(owner), owner.memberId, now))
    .filter(({ state }) => state.state === 'running' || state.state === 'stopped')
    .map((one) => ({ ...one, progress: progressOf(one.programme, one.ticks), today }))
}

/** What it takes to draw a rider, without their height. */
function lengthsOf({ belief }: Recommendation): Rider {
  const { statureMm: _, ...rider } = belief.rider
  return rider
}

/** What was measured at home comes to on each type: by the rider's own bike where they taped it, else by their body. */
async function firstMarks(
  db: DbExecutor,
  scope: Scope,
  memberId: string,
  types: Awaited<ReturnType<typeof listTypes>>,
): Promise<NonNullable<MemberPageData['first']>> {
  const home = await latestHomeMeasures(db, scope, memberId)
  if (!home) return { measured: false, minutes: MINUTES_AT_THE_BIKE.unknown, marks: [] }
  const { evidence, ownBike } = home.measures
  const { school } = await getStudio(db, scope)
  const marks = await Promise.all(
    types.map(async ({ bikeType, equipment }): Promise<FirstMarks | null> => {
      const to = { bikeType }
      const answer = ownBike
        ? await compute<TranslateResponse>('translate', { from: ownBike, to }, PATIENCE_MS)
        : await compute<Recommendation>('recommend', { bikeType, school, evidence }, PATIENCE_MS)
      if (isErrorResponse(answer)) return null
      const start = 'next' in answer ? startOf(answer) : answer.marks
      return { type: bikeType, closing: equipment.closing, marks: start }
    }),
  )
  return {
    measured: true,
    minutes: ownBike ? MINUTES_AT_THE_BIKE.taped : MINUTES_AT_THE_BIKE.measured,
    marks: marks.filter((one) => one !== null),
  }
}

const startOf = ({ marks, next }: Recommendation): Marks => ({
  ...marks,
  ...Object.fromEntries(next.moves.map(({ axis, to }) => [axis, to])),
})
