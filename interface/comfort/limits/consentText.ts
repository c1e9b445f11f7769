import { formatConsent } from '@/core/messages/riders/consent'
import { formatDate } from '@/core/messages/words/dates'
import type { Consent } from '@/server/riders/consent'
import type { ConsentText } from './ConsentPart'

/** A consent in words. */
export const consentText = (
  { given, wording }: Readonly<{ given: Consent | null; wording: string }>,
  timeZone: string,
): ConsentText => ({
  wording,
  given: given && formatConsent(given.way, formatDate(given.createdAt, timeZone), given.wordingVersion),
})
