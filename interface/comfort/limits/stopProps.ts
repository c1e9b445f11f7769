import { REFERRAL } from '@/core/classes/watch/comfort'
import { LIMIT_REFERRAL } from '@/core/messages/riders/limits'
import type { RiderContext } from '@/server/pages/comfort/riderContext'

/** What stops a rider: why, what to do, and where it is answered. */
export type StopText = Readonly<{
  why: string
  referral: string
  answer: Readonly<{ href: string; name: string }>
}>

/** The stop of a rider in words, with the studio's own referral; null where nothing stops. */
export function stopProps(
  memberId: string,
  context: Pick<RiderContext, 'stop' | 'isLimit'> | null,
  referral: string | null,
): StopText | null {
  if (!context?.stop) return null
  const why = context.stop
  return context.isLimit
    ? { why, referral: LIMIT_REFERRAL, answer: { href: `/riders/${memberId}#limits`, name: 'Open the limits' } }
    : {
        why,
        referral: referral ?? REFERRAL,
        answer: { href: `/riders/${memberId}/reasons`, name: 'Open the complaint' },
      }
}
