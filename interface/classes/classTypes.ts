import type { Block } from '@/core/classes/plan/blocks'

/** A class as its pages know it; times in milliseconds since 1970. */
export type ClassInfo = Readonly<{
  id: string
  title: string
  /** "Thu 26 Nov" on the studio's calendar. */
  day: string
  /** "18:00–18:45" on the studio's clock. */
  span: string
  timeZone: string
  startMs: number
  endMs: number
  roomName: string | null
  /** The open floor of a day: nobody is booked, riders sit down as they come. */
  open: boolean
  cancelled: boolean
  /** Who teaches it; null if unknown. */
  teacher: string | null
  /** Whether the user may change it. */
  mayEdit: boolean
  hands: number
  doorsMin: number
  blocks: readonly Block[]
}>

export const MOMENTS = ['before', 'watch', 'after', 'blocks'] as const
export type Moment = (typeof MOMENTS)[number]
