import type { Metadata } from 'next'
import { FELT_NAME, formatTrialAge } from '@/core/messages/comfort'
import { capitalized } from '@/core/messages/phrases'
import { REFERRAL } from '@/core/watch/comfort'
import { MemberPage } from '@/interface/memberPage/MemberPage'
import { database } from '@/server/db/connection'
import { memberPageData } from '@/server/pages/memberPage'
import { formatDate } from '@/server/studio/day'
import { ownerOfLink } from './ownerOfLink'

export const metadata: Metadata = { title: 'Your numbers', robots: { index: false, follow: false, nocache: true } }

/** A member's own page behind their private link; nobody signs in. */
export default async function OwnPage({ params }: { params: Promise<{ token: string }> }) {
  const { token } = await params
  const owner = await ownerOfLink(token)
  const { studio, name, sets, first, trials, hasStory } = await memberPageData(database(), owner, new Date())
  return (
    <MemberPage
      token={token}
      studio={studio.name}
      referral={studio.referral ?? REFERRAL}
      name={name}
      sets={sets.map(({ at, ...set }) => ({ ...set, date: formatDate(at, studio.timeZone) }))}
      first={first}
      hasStory={hasStory}
      trials={trials.map(({ id, said, what, expects, ratingBefore, ...run }) => ({
        id,
        said,
        felt: FELT_NAME[what],
        expects: capitalized(expects.join('; ')),
        age: formatTrialAge(run),
        before: ratingBefore,
      }))}
    />
  )
}
