import type { Block } from '@/core/classes/plan/blocks'
import { formatDate } from '@/core/messages/words/dates'
import type { StudioClass } from '@/server/classes/classes'

/** A class whose plan can be copied. */
export type OtherPlan = Readonly<{ id: string; name: string; blocks: readonly Block[] }>

export const otherPlans = (classes: readonly StudioClass[], timeZone: string): OtherPlan[] =>
  classes.flatMap(({ id, title, startsAt, blocks }) =>
    blocks ? [{ id, name: `${title}, ${formatDate(startsAt, timeZone)}`, blocks }] : [],
  )
