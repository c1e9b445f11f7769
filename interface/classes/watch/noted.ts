import type { HandPosition } from '@/core/classes/plan/blockWords'
import type { Side } from '@/core/classes/watch/classState'

/** Something tapped of a rider: a sign, or with a region and a score something felt. */
export type Noted = Readonly<{ sign: string; side?: Side; region?: string; score?: number; hands?: HandPosition }>
