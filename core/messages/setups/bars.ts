import type { BikeType } from '../../bikes/bike/bike'
import type { Advice } from '../../setups/recommend/recommend'
import type { Reason } from '../../setups/recommend/request/request'
import type { BarPosture, BarReason } from '../../base/school/barPosture'
import type { UnitSystem } from '../../base/length'
import { formatLabel } from '../words/labels'
import { formatMove } from './moves'
import { capitalized, formatAgainstSaddle, formatLength } from '../words/phrases'

/** The bars in one sentence: their target and why, or why they stay. */
export function formatBars(bikeType: BikeType, { bars, next }: Advice, shown: UnitSystem): string {
  const at =
    formatLabel(bikeType, 'barHeight', bars.height.label) +
    (bars.slide ? ` and ${formatLabel(bikeType, 'barSlide', bars.slide.label)}` : '')
  if (next.kind === 'change' && next.barsWhy) return `${capitalized(formatBarMove(bikeType, { next, bars }, shown))}.`
  const where = formatAgainstSaddle(bars.gripAboveSeatMm, shown)
  switch (bars.decision) {
    case 'passed': {
      const off = next.barsDisagreeMm
      const rule =
        off === undefined
          ? ''
          : ` By rule they would stand ${formatLength(off, shown)} ${off > 0 ? 'lower' : 'higher'}: ask, keep theirs.`
      return `Leave the bars at ${at}, ${where}: they suit the rider, and the knees clear them.${rule}`
    }
    case 'lookAgain':
      return `Leave the bars at ${at}: elbows and feeling do not agree. Look at both again.`
    case 'kneesNext':
      return `Leave the bars at ${at}: the reach is right. Then stand up: do the knees clear them?`
    case 'plumbFirst':
      return 'First the cranks level: the saddle’s slide comes before the bars’.'
    case 'reach':
    case 'knees':
    case 'gauge':
      if (bars.end)
        return `At ${at} the bars stay too ${BAR_END[bars.end]}, and no mark helps. Offer another type of bike.`
  }
  const set = `Bars at ${at}: ${where}, ${BAR_WHY[bars.why]}.`
  const gap = bars.forearmGapMm
  const reach = !bikeType.axes.barSlide
    ? ' This bike’s bars do not slide. If the reach does not suit, offer another type.'
    : gap !== undefined && Math.abs(gap) > 20
      ? ` By the forearm the bars stay ${formatLength(gap, shown)} too ` +
        `${gap > 0 ? 'far' : 'near'}: the slide ends there.`
      : ''
  return bars.fits ? set + reach : `${set} That is the nearest this post offers.${reach}`
}

/** The sentence for bars that stay where they are; `otherType` is the offer where no mark of this bike helps. */
export function formatBarsLeft(
  { barsWhy, barsEnd, barsDisagreeMm }: Advice['next'],
  shown: UnitSystem,
  otherType: string,
): string {
  if (barsEnd) return ` The bars stay too ${BAR_END[barsEnd]}. ${otherType}`
  if (barsWhy === 'lookAgain') return ' Elbows and feeling do not agree: look at both again.'
  if (barsWhy === 'kneesNext') return ' Next, stand up: do the knees clear the bars?'
  if (barsWhy !== 'passed') return ''
  if (barsDisagreeMm === undefined) return ' The bars are right too.'
  const off = formatLength(barsDisagreeMm, shown)
  const way = barsDisagreeMm > 0 ? 'higher' : 'lower'
  return ` The bars suit the rider, ${off} ${way} than the rule: ask, and keep theirs.`
}
const BAR_END = { far: 'far', near: 'near', touching: 'near for the knees' } as const

/** "raise the bars one mark, 6 to 7, 40 mm above the saddle: the elbows were locked" */
export function formatBarMove(
  bikeType: BikeType,
  { next, bars }: Pick<Advice, 'next' | 'bars'>,
  shown: UnitSystem,
): string {
  const [move] = next.moves
  const moved = formatMove(bikeType, move, shown)
  const why = BAR_MOVE_WHY[next.barsWhy!](next)
  if (move.axis === 'barHeight') return `${moved}, ${formatAgainstSaddle(bars.gripAboveSeatMm, shown)}: ${why}`
  return `${moved}: ${why}, and the reach gets ${formatLength(move.mm, shown)} ${move.mm > 0 ? 'longer' : 'shorter'}`
}

type BarsSeen = Extract<Reason, { code: 'barsSeen' }>
const barsSeen = ({ reasons }: Advice['next']): BarsSeen | undefined =>
  reasons.find((reason): reason is BarsSeen => reason.code === 'barsSeen')

const BAR_MOVE_WHY: Readonly<Record<NonNullable<Advice['next']['barsWhy']>, (next: Advice['next']) => string>> = {
  reach: (next) => {
    const { elbows, feel } = barsSeen(next) ?? {}
    if (elbows === 'locked') return 'the elbows were locked'
    if (elbows === 'cramped') return 'the arms were cramped'
    return feel === 'stretched' ? 'the rider feels stretched' : 'the rider feels cramped'
  },
  knees: () => 'the knees touched them',
  height: ({ moves: [{ mm }] }) => `they stand too ${mm > 0 ? 'low' : 'high'}`,
  gauge: () => 'the reach was off by the gauge',
  passed: () => '',
  lookAgain: () => '',
  kneesNext: () => '',
  plumbFirst: () => '',
  noReason: () => '',
}

/** "the elbows were soft", "it felt stretched", "the knees touched the bars" */
export function barsSeenParts({ elbows, feel, clearance }: BarsSeen): string[] {
  return [
    ...(elbows ? [`the elbows were ${elbows}`] : []),
    ...(feel ? [`the reach felt ${feel}`] : []),
    ...(clearance ? [`the knees ${clearance === 'clear' ? 'cleared' : 'touched'} the bars`] : []),
  ]
}

export const BAR_WINDOW_TEXT: Readonly<Record<BarPosture, string>> = {
  above: '20 to 100 mm above the saddle',
  level: 'about level with the saddle',
  low: '15 to 80 mm below the saddle',
  lowest: 'as low as the rider likes, within reason',
}

const BAR_WHY: Readonly<Record<BarReason, string>> = {
  new: 'a new rider sits easier with the bars up',
  regular: 'level suits a regular rider',
  experienced: 'level suits, unless the rider rides low on the road',
  wish: 'as the rider wishes',
  backSore: 'a sore back wants the bars up',
  pregnant: 'in pregnancy the bars go up',
  heart: 'with a heart condition the bars go up',
  operation: 'after an operation the bars go up',
  roadHabit: 'as low as the rider sits on the road',
  school: 'this studio’s way',
  unknown: 'until experience and back are known, the bars stay up',
}
