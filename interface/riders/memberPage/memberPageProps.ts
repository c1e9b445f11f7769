import { REFERRAL } from '@/core/classes/watch/comfort'
import { FELT_NAME, formatTrialAge } from '@/core/messages/comfort/comfort'
import { takeProps } from './takeProps'
import { formatDate, studioDay } from '@/core/messages/words/dates'
import { capitalized } from '@/core/messages/words/phrases'
import type { MemberPageData } from '@/server/pages/riders/memberPage'
import { consentText } from '../../comfort/limits/consentText'
import type { MemberPageProps } from './MemberPage'
import { ownProgrammeProps } from './ownProgrammeProps'

/** A member's own page in words. */
export const memberPageProps = (
  token: string,
  now: Date,
  { studio, name, sets, first, trials, programmes, take, hasStory, hasFile, consent }: MemberPageData,
): Omit<MemberPageProps, 'keepsLink'> => ({
  token,
  studio: studio.name,
  referral: studio.referral ?? REFERRAL,
  name,
  sets: sets.map(({ at, ...set }) => ({ ...set, date: formatDate(at, studio.timeZone) })),
  first,
  take: take && takeProps(take, studioDay(now, studio.timeZone)),
  hasStory,
  hasFile,
  consent: consentText(consent, studio.timeZone),
  programmes: programmes.map(ownProgrammeProps),
  trials: trials.map(({ id, said, what, expects, ratingBefore, ...run }) => ({
    id,
    text: said,
    felt: FELT_NAME[what],
    expects: capitalized(expects.join('; ')),
    age: formatTrialAge(run),
    before: ratingBefore,
  })),
})
