import type { ComplaintName } from '@/core/complaints/causeTable'
import type { Health, Moment, Quality } from '@/core/complaints/complaint'

/** What the form of a complaint sends; everything but what and how strong may be left unsaid. */
export type ComplaintSaid = Readonly<{
  what: ComplaintName
  strength: number
  side: 'left' | 'right' | 'both' | null
  moment: Moment | null
  lasts: boolean | null
  quality: readonly Quality[]
  health: readonly Health[]
  line: string
}>

/** A complaint of which nothing but what and how strong is known. */
export const NOTHING_SAID: Omit<ComplaintSaid, 'what' | 'strength'> = {
  side: null,
  moment: null,
  lasts: null,
  quality: [],
  health: [],
  line: '',
}
