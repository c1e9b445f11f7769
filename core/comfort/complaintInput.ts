import { redFlagsOf, type RedFlagReason } from './model/redFlags'
import type { ComplaintName } from './model/causeTable'
import type { Health, Moment, Quality } from './model/complaint'

/** What the form of a complaint sends; everything but what and how strong may be left unsaid. */
export type ComplaintInput = Readonly<{
  what: ComplaintName
  strength: number
  side: 'left' | 'right' | 'both' | null
  moment: Moment | null
  lasts: boolean | null
  quality: readonly Quality[]
  health: readonly Health[]
  line: string
}>

/** A complaint without details beyond what is felt and how strongly. */
export const EMPTY_COMPLAINT: Omit<ComplaintInput, 'what' | 'strength'> = {
  side: null,
  moment: null,
  lasts: null,
  quality: [],
  health: [],
  line: '',
}

/** Stored as the strength of what never is a matter for a bike when no score was given; no page shows it. */
export const URGENT_STRENGTH = 10

/** Red flags of a complaint as far as the form was filled in; an unknown strength raises none. */
export const flagsOfInput = ({
  what,
  strength,
  side,
  moment,
  lasts,
  quality,
  health,
}: Omit<ComplaintInput, 'strength'> & Readonly<{ strength: number | null }>): RedFlagReason[] =>
  redFlagsOf(
    {
      what,
      strength: strength ?? 0,
      ...(side && { side }),
      ...(moment && { when: moment }),
      ...(lasts && { lasts }),
      quality: [...quality],
    },
    { health },
  )

/** True where the rider must stop and be referred; false where only the side is missing. */
export const isStop = (flags: readonly RedFlagReason[]): boolean => flags.some((flag) => flag !== 'sideUnknown')
