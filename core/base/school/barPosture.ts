import { BAR_WINDOW_MM, type Posture, type School } from './school'

export type BarPosture = 'above' | 'level' | 'low' | 'lowest'
export type BarReason =
  | 'heart'
  | 'operation'
  | 'roadHabit'
  | 'new'
  | 'regular'
  | 'experienced'
  | 'backSore'
  | 'pregnant'
  | 'wish'
  | 'school'
  | 'unknown'

/** What of a rider decides the height of the bars. */
export type BarRider = Readonly<{
  experience?: 'new' | 'regular' | 'experienced'
  backSore?: boolean
  pregnant?: boolean
  /** A health limit that sets the bars high. */
  upright?: 'heart' | 'operation' | 'pregnant'
  /** How they ride elsewhere. */
  rides?: 'none' | 'upright' | 'roadLow'
}>

/** Long indoor experience alone does not mean low: only a road habit lowers the bars (common practice, no source). */
const OF_EXPERIENCE = { new: 'above', regular: 'level', experienced: 'level' } as const
const OF_WISH = { upright: 'above', level: 'level', low: 'low' } as const

/** Where the bars belong: by health first, then what the rider wishes, then the studio's school and experience. */
export function barPostureFor(
  school: Pick<School, 'bars'>,
  rider: BarRider | undefined,
  wish: Posture | undefined,
): Readonly<{ posture: BarPosture; why: BarReason }> {
  if (rider?.upright) return { posture: 'above', why: rider.upright }
  if (rider?.pregnant) return { posture: 'above', why: 'pregnant' }
  if (rider?.backSore) return { posture: 'above', why: 'backSore' }
  const cut = (posture: BarPosture, why: BarReason) =>
    school.bars === 'neverBelow' && posture === 'low'
      ? { posture: 'level' as const, why: 'school' as const }
      : { posture, why }
  if (wish) return cut(OF_WISH[wish], 'wish')
  if (school.bars === 'above') return { posture: 'above', why: 'school' }
  if (school.bars === 'riderChooses') return { posture: 'lowest', why: 'school' }
  if (rider?.rides === 'roadLow') return cut('low', 'roadHabit')
  if (!rider?.experience) return { posture: 'above', why: 'unknown' }
  return cut(OF_EXPERIENCE[rider.experience], rider.experience)
}

/** The window of a posture, grip above the seat point, mm; a school that never goes below the saddle cuts it at 0. */
export function barWindowMm(school: Pick<School, 'bars'>, posture: BarPosture): readonly [number, number] {
  if (posture === 'lowest') return [BAR_WINDOW_MM.low[0], BAR_WINDOW_MM.above[1]]
  const [low, high] = BAR_WINDOW_MM[posture]
  return school.bars === 'neverBelow' ? [Math.max(0, low), high] : [low, high]
}
