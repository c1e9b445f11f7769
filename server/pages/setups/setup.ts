import { currentWording, whoAgreed } from '../../riders/consent'
import { studioDay } from '../../../core/messages/words/dates'
import { limitEffects, type LimitEffects } from '../../../core/riders/limits/limits'
import type { RecommendRequest } from '../../../core/setups/recommend/request/request'
import { schoolOf } from '../../../core/base/school/school'
import { schoolOn } from '../../../core/setups/recommend/knowledge/schoolOn'
import { listTypes } from '../../bikes/versions'
import type { Scope } from '../../platform/accounts/scope'
import type { Database } from '../../platform/db/connection'
import { listLimits } from '../../riders/limits'
import { findMember } from '../../riders/members/members'
import { carriedBodyOf } from '../../setups/carriedBodies'
import { listEvidence } from '../../setups/evidence'
import { learnedPrior, observerErrorOf, observerOf } from '../../setups/learned'
import { currentEntries } from '../../setups/register'
import { findPreviousNumbers, findSetup, listHistory } from '../../setups/setups'
import { findSetupSchool } from '../../setups/setupSchool'
import { getStudio } from '../../studio/studio'
import { riderContext } from '../comfort/riderContext'

/** Other types are computed for up to this many. */
const MAX_TYPES = 12

/** One set-up with its rider's context, or null; history, context and learning only while it is open. */
export type SetupPage = NonNullable<Awaited<ReturnType<typeof setupPage>>>

export async function setupPage(db: Database, scope: Scope, id: string, now: Date) {
  const setup = await findSetup(db, scope, id)
  if (!setup) return null
  const isOpen = setup.finishedAt === null
  const [studio, member, rows, history] = await Promise.all([
    getStudio(db, scope),
    findMember(db, scope, setup.memberId),
    listEvidence(db, scope, id),
    isOpen ? listHistory(db, scope, setup.memberId, now) : [],
  ])
  if (!member) return null
  const [ownSchool, previous, entries, types] = await Promise.all([
    findSetupSchool(db, scope, id),
    isOpen ? findPreviousNumbers(db, scope, setup) : null,
    isOpen ? currentEntries(db, scope, [setup.memberId]) : [],
    listTypes(db, scope),
  ])
  const [learned, eye] = isOpen
    ? await Promise.all([learnedPrior(db, scope, studio), observerErrorOf(db, scope)])
    : [null, null]
  const today = studioDay(now, studio.timeZone)
  const riderLimits = isOpen ? (await listLimits(db, scope, [setup.memberId])).map(({ limit }) => limit) : []
  return {
    timeZone: studio.timeZone,
    referral: studio.referral,
    setup,
    member,
    rows,
    history,
    /** What another studio believed of the rider's body; undefined without their file. */
    body: isOpen ? await carriedBodyOf(db, scope, setup.memberId, now) : undefined,
    school: schoolOn(setup.type, schoolOf({ ...studio.school, ...ownSchool })),
    ownSchool,
    costs: studio.costs ?? {},
    prior: learned?.prior ?? {},
    limits: adviceLimits(limitEffects(riderLimits, today)),
    riderLimits,
    /** On the studio's clock, YYYY-MM-DD. */
    today,
    consent: {
      agrees: (await whoAgreed(db, scope, [setup.memberId])).has(setup.memberId),
      wording: (await currentWording(db, scope)).wording,
    },
    observer: eye ? observerOf(eye) : undefined,
    /** Numbers in use on other types. */
    elsewhere: entries
      .filter(({ lineId, purpose }) => lineId !== setup.lineId && purpose === 'usual')
      .map(({ type, marks }) => ({ type: type.name, marks }))
      .slice(0, MAX_TYPES),
    otherTypes: types
      .map(({ bikeType }) => bikeType)
      .filter(({ name }) => name !== setup.type.name)
      .slice(0, MAX_TYPES),
    previous,
    context: isOpen ? await riderContext(db, scope, setup.memberId, now) : null,
    hasGauge: process.env.ANGLE_GAUGE_URL !== undefined,
  }
}

/** What of a rider's limits `recommend` takes. */
export const adviceLimits = (effects: LimitEffects): NonNullable<RecommendRequest['limits']> => ({
  ...(effects.upright && { upright: effects.upright }),
  ...(effects.rides && { rides: effects.rides }),
  ...(effects.shorterLeg && { shorterLeg: effects.shorterLeg }),
  ...(effects.sitsAtMm && { sitsAtMm: effects.sitsAtMm }),
  ...(effects.ownSaddleMm && { ownSaddleMm: effects.ownSaddleMm }),
})
