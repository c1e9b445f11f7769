import { isCommon } from '../../base/adjustments'
import type { BikeType } from '../../bikes/bike/bike'
import type { Evidence } from '../../riders/evidence/registry'
import type { Advice } from '../../setups/recommend/recommend'
import type { MeantReason } from '../../riders/evidence/kinds/onBike/set'
import type { OtherType } from '../../setups/recommend/otherTypes'
import type { Anomaly, ReadingSlip } from '../../setups/recommend/history/anomalies'
import type { Move, Reason } from '../../setups/recommend/request/request'
import { CAUTION, cautionsFor } from '../words/cautions'
import { barsSeenParts, BAR_WINDOW_TEXT, formatBarMove, formatBars, formatBarsLeft } from './bars'
import { formatLabel } from '../words/labels'
import { formatMove } from './moves'
import type { UnitSystem } from '../../base/length'
import { evidenceName } from '../words/evidenceName'
import {
  capitalized,
  formatPlumb,
  lowered,
  axisName,
  formatHalfMm,
  formatAgo,
  formatDegrees,
  formatDegreesBeside,
  formatNaturalFrequency,
  formatLength,
  formatList,
} from '../words/phrases'

/**
 * Finished English for an answer of `recommend`: one sentence to read aloud, why, cautions, the bars, what to read
 * again.
 */
export type Messages = Readonly<{
  sentence: string
  because: string[]
  cautions: string[]
  bars: string
  anomalies: string[]
}>

export function renderMessages(
  bikeType: BikeType,
  evidence: readonly Evidence[],
  advice: Advice,
  { shown = 'metric', others }: Readonly<{ shown?: UnitSystem; others?: readonly OtherType[] }> = {},
): Messages {
  return {
    sentence: formatNextStep(bikeType, advice, shown, others),
    because: advice.next.reasons.map((reason) => formatReason(bikeType, reason, advice, shown)),
    cautions: cautionsFor(evidence, advice.next.kind).map((code) => CAUTION[code]),
    bars: formatBars(bikeType, advice, shown),
    anomalies: advice.anomalies.map((anomaly) => formatAnomaly(evidence, anomaly)),
  }
}

function formatNextStep(
  bikeType: BikeType,
  advice: Advice,
  shown: UnitSystem,
  others: readonly OtherType[] | undefined,
): string {
  const { next, belief, school } = advice
  const knee = next.expect.find((e) => e.check === 'kneeFlexion')
  const window = `${school.kneeWindowDeg[0]} to ${school.kneeWindowDeg[1]}°`
  const at = (move: Move) => formatLabel(bikeType, move.axis, move.to)
  if (next.kind === 'outOfRange' && next.scaleEnd) {
    const { axis, end, nearest, missingMm } = next.scaleEnd
    if (axis === 'seatSlide') {
      const plumb = next.expect.find((e) => e.check === 'plumb')
      const hangs = plumb ? `: there the knee would hang ${formatPlumb(plumb.to, shown)}` : ''
      return (
        `The slide ends at ${formatLabel(bikeType, axis, nearest)}, ` +
        `${formatLength(missingMm, shown)} too far ${end === 'rear' ? 'forward' : 'back'} for ` +
        `this rider${hangs}. ${formatOtherType(others)}`
      )
    }
    const expected =
      knee && knee.to >= 0
        ? `the knee would read about ${formatDegreesBeside(knee.to, school.kneeWindowDeg)}`
        : 'the leg would not reach the pedal'
    return (
      `The seat post ends at ${formatLabel(bikeType, 'seatHeight', nearest)}, ` +
      `${formatLength(missingMm, shown)} too ${end === 'top' ? 'low' : 'high'} for this rider: ` +
      `there ${expected}, ${window} wanted. ${formatOtherType(others)}`
    )
  }
  if (next.kind === 'start') {
    const moveOf = (axis: Move['axis']) => next.moves.find((move) => move.axis === axis)
    const height = moveOf('seatHeight')!
    const slide = moveOf('seatSlide')
    const bars = next.moves.filter(({ axis }) => axis === 'barHeight' || axis === 'barSlide')
    const further = next.moves.filter(({ axis }) => !isCommon(axis))
    const furtherText = further.map((move) => `, ${axisName(bikeType, move.axis)} at ${at(move)}`).join('')
    const look = school.foreAft === 'unused' ? 'the knee' : 'the knee and the plumb line in one mount'
    if (school.order === 'heightsFirst' && bars.length > 0) {
      const slides = [...(slide ? [slide] : []), ...bars.slice(1)].map(at)
      const then =
        slides.length > 0 ? `, then the ${slides.length > 1 ? 'slides' : 'slide'}, ${formatList(slides)}` : ''
      return (
        `Set both heights first, seat ${at(height)} and bars ${at(bars[0])}${then}${furtherText}. ` +
        `Then look at ${look}.`
      )
    }
    const barsText = bars.length === 0 ? '' : `, bars at ${formatList(bars.map(at))}`
    const slideText = slide ? `, its slide at ${at(slide)}` : ''
    return `Set the seat at ${at(height)}${slideText}${barsText}${furtherText}. Then look at ${look}.`
  }
  if (next.kind === 'change' && next.barsWhy) return `${capitalized(formatBarMove(bikeType, advice, shown))}.`
  if (next.kind === 'change' && knee) {
    const what = next.moves.map((move) => formatMove(bikeType, move, shown)).join(', and ')
    const to = formatDegreesBeside(knee.to, school.kneeWindowDeg)
    const goes =
      knee.from !== undefined && knee.from >= 0
        ? `from ${formatDegreesBeside(knee.from, school.kneeWindowDeg)} to about ${to}`
        : `to about ${to}`
    const change =
      next.moves.length === 1
        ? `${capitalized(what)}: the knee should come ${goes}.`
        : `${capitalized(what)}. The knee should come ${goes}.`
    const stays = next.moves.every(({ axis }) => bikeType.axes[axis]?.riderOn) ? ' The rider may stay on.' : ''
    const isHung = advice.readings.plumb || !advice.readings.knee || school.foreAft === 'unused'
    if (stays) return `${change}${stays}`
    return isHung ? change : `Before climbing off, hang the plumb line too. Then ${lowered(change)}`
  }
  const seat = formatLabel(bikeType, 'seatHeight', advice.marks.seatHeight ?? '')
  if (next.meant) return `Leave it as it stands: it was set so on purpose, ${MEANT_TEXT[next.meant]}.`
  if (next.readAgain)
    return (
      `Read the knee again at ${seat}, after ten easy turns: what was read there does not go ` +
      'together, and nothing is changed on it.'
    )
  if (next.checks.includes('heel'))
    return (
      `Leave the seat at ${seat} and look at the heel: heel on the pedal, pelvis level, pedal ` +
      'at its farthest. This studio’s school goes by it.'
    )
  if (next.checks.includes('kneeFlexion')) return `Leave the seat at ${seat} and look at the knee here.`
  const reading =
    advice.readings.knee?.kind === 'kneeAngle'
      ? formatDegreesBeside(advice.readings.knee.deg, school.kneeWindowDeg)
      : `about ${formatDegrees(belief.kneeFlexionDeg.mean)}`
  const open = next.checks.includes('plumb') ? ' Next, the cranks level.' : ''
  if (next.smallChance !== undefined) {
    const way =
      advice.readings.knee?.kind === 'kneeAngle'
        ? 'Offer another type of bike.'
        : 'Measure the knee angle: that tells more than a look.'
    return (
      `Leave the seat at ${seat} for now: it is right for ` +
      `${next.smallChance < 0.005 ? '' : 'only '}${formatNaturalFrequency(next.smallChance)} ` +
      `riders like this one, and no other mark is better.${open} ${way}`
    )
  }
  const bars = formatBarsLeft(next, shown, next.barsEnd ? formatOtherType(others, 'bars') : '')
  return `Leave the seat at ${seat}: the knee reads ${reading}, and no other mark is clearly better.${open}${bars}`
}

/** Which type to offer where this one ends, and how likely it is right there. */
function formatOtherType(others: readonly OtherType[] | undefined, of: 'saddle' | 'bars' = 'saddle'): string {
  if (!others) return 'Offer another type of bike.'
  const [best] = others
  const chance = best && (of === 'saddle' ? best.chance : best.barsChance)
  if (!best || chance < MIN_CHANCE) return 'No other type here would suit this rider better.'
  return (
    `Offer a ${best.name}: there the ${of === 'saddle' ? 'saddle' : 'reach'} would be right for ` +
    `${formatNaturalFrequency(chance)} riders like this one.`
  )
}
/** A type less likely to suit than this is not offered. */
const MIN_CHANCE = 0.3

function formatReason(bikeType: BikeType, reason: Reason, { school, next }: Advice, shown: UnitSystem): string {
  const window = `${school.kneeWindowDeg[0]} to ${school.kneeWindowDeg[1]}°`
  const target = school.heelCheck === 'target' ? 'the leg just straight on the heel' : window
  switch (reason.code) {
    case 'noEvidence':
      return 'Nothing is known of this rider yet, so this is only where most people begin.'
    case 'notSettled':
      return (
        'These readings lie so far from each other, or from any usual rider, that not all of ' +
        'them could be taken in: take the chances as rough, and read again.'
      )
    case 'chance':
      return (
        `At ${formatLabel(bikeType, 'seatHeight', reason.height)}` +
        `${bikeType.axes.seatSlide ? ` with the slide at ${formatLabel(bikeType, 'seatSlide', reason.slide)}` : ''}, ` +
        `${school.heelCheck === 'target' ? 'heel check' : 'knee'}` +
        `${school.foreAft === 'unused' ? ' would be ' : ' and plumb line would both be '}` +
        `right for ${formatNaturalFrequency(reason.chance)} riders like this one.`
      )
    case 'lastReading':
      if (reason.check === 'plumb')
        return `The plumb line fell ${formatPlumb(reason.mm, shown)}${reason.inWindow ? ', as wanted' : ''}.`
      return (
        `${reason.at === undefined ? 'The' : `At ${formatLabel(bikeType, 'seatHeight', reason.at)} the`}` +
        ` knee read ${formatDegreesBeside(reason.deg, school.kneeWindowDeg)}; ${target} is wanted.`
      )
    case 'seenByEye':
      return {
        locked: 'The knee looked locked.',
        slightBend: 'The knee looked slightly bent, as wanted.',
        deepBend: 'The knee looked deeply bent.',
      }[reason.seen]
    case 'heelSeen': {
      const seen = {
        justStraight: 'On the heel the leg was just straight',
        stillBent: 'On the heel the leg stayed bent',
        cannotReach: 'The heel did not reach',
      }[reason.seen]
      return reason.decides
        ? `${seen}, and this studio’s school goes by it.`
        : `${seen}; this informs, it does not decide.`
    }
    case 'plumbSeen':
      return {
        behindAnkle: 'The knee hung behind the ankle.',
        midFoot: 'The knee hung over the middle of the foot.',
        overAxle: 'The knee hung over the pedal axle.',
        aheadOfAxle: 'The knee hung ahead of the pedal axle.',
        pastToes: 'The knee hung past the toes.',
      }[reason.seen]
    case 'shorterLeg':
      return (
        `The ${reason.side} leg is ${formatLength(reason.mm, shown)} shorter: each knee is looked at for itself, ` +
        `and the ${reason.side} one bends some ${formatDegrees(reason.deg)} less.`
      )
    case 'sitsAt':
      return (
        `Measured where the rider sits, ${formatLength(reason.mm, shown)} ` +
        `${reason.mm < 0 ? 'behind' : 'ahead of'} the saddle’s middle.`
      )
    case 'ownSaddle':
      return (
        `With the rider’s own saddle or cover on, ${formatLength(reason.mm, shown)} ` +
        `${reason.mm < 0 ? 'lower' : 'higher'} than the bike’s: put it on before anything is read.`
      )
    case 'history': {
      const ago = reason.agoDays < 61 ? '' : `, the last ${formatAgo(reason.agoDays)}`
      const old = reason.agoDays > OLD_DAYS ? '; habits and shoes drift, so it is less sure' : ''
      const setups = reason.setups === 1 ? 'an earlier set-up' : `${reason.setups} earlier set-ups`
      return `The body is known from ${setups}${ago}${old}.`
    }
    case 'carriedBody': {
      const ago = reason.agoDays < 61 ? '' : `, ${formatAgo(reason.agoDays)}`
      const old = reason.agoDays > OLD_DAYS ? '; habits and shoes drift, so it is less sure' : ''
      return `The body is known from another studio, by the rider’s file${ago}${old}.`
    }
    case 'barChance':
      return (
        `With the bars at ${formatLabel(bikeType, 'barHeight', reason.height)}` +
        `${reason.slide === undefined ? '' : ` and ${formatLabel(bikeType, 'barSlide', reason.slide)}`}, height, ` +
        `reach and knees would be right for ${formatNaturalFrequency(reason.chance)} riders like this one.`
      )
    case 'barsSeen':
      return `${capitalized(formatList(barsSeenParts(reason)))}.`
    case 'barHeightRule':
      return `The bars stand outside of their window: ${BAR_WINDOW_TEXT[reason.posture]} is wanted.`
    case 'slideFirst':
      return 'Ask first whether the saddle merely stands too far back: forward and up may cure the reach.'
    case 'further':
      return (
        `Moved with the rest, the ${formatList(reason.axes.map((axis) => axisName(bikeType, axis)))} ` +
        `${reason.axes.length > 1 ? 'make' : 'makes'} it right for ${Math.round(100 * reason.gain)} in 100 more.`
      )
    case 'shorterCranks':
      return (
        `On cranks of ${formatHalfMm(reason.fromMm, shown)} the knee would bend ${formatDegrees(reason.topDeg)} at ` +
        `the top and close the hip; on ${formatHalfMm(reason.toMm, shown)} it bends ` +
        `${formatDegrees(reason.thenDeg)}, and the seat goes ${formatLength(reason.seatMm, shown)} ` +
        `${reason.seatMm < 0 ? 'lower' : 'higher'}.`
      )
    case 'meant':
      return `Set so on purpose, ${MEANT_TEXT[reason.why]}.`
    case 'vernier':
      return (
        'Height and slide work together here: for the leg the seat comes ' +
        `${formatLength(reason.heightMm, shown)} ${reason.heightMm > 0 ? 'higher' : 'lower'}.`
      )
    case 'slideForPedals':
      return `The slide belongs to the pedals: the knee should then hang ${formatPlumb(reason.plumbMm, shown)}.`
    case 'noBetterMark':
      return reason.gain < 0.02
        ? 'No other mark is better.'
        : `Another mark would be right for ${Math.round(100 * reason.gain)} in 100 more: not worth climbing off for.`
    case 'reachChanges':
      return (
        `This ${reason.mm > 0 ? 'lengthens' : 'shortens'} the reach by ` +
        `${formatLength(reason.mm, shown)}; look at the bars` +
        `${next.kind === 'change' ? ' again' : ''}.`
      )
  }
}

/** From this age on, readings of a body are reported as old, days. */
const OLD_DAYS = 180

/** Why a setting is on purpose, within a sentence. */
export const MEANT_TEXT: Readonly<Record<MeantReason, string>> = {
  longLegs: 'for long legs',
  shortLegs: 'for short legs',
  trunk: 'for the build of the upper body',
  roadPosition: 'as on the rider’s own bike',
  starter: 'low to begin with',
  clinician: 'by a clinician’s word',
  wish: 'as the rider wishes',
}

const SLIP_TEXT: Readonly<Record<ReadingSlip, string>> = {
  betweenTheBones: 'was the angle between the bones meant, not the bend?',
  heelForBall: 'was the heel on the pedal, not the ball of the foot?',
  otherLeg: 'was it the other leg?',
  moving: 'was the leg still turning?',
  inShoes: 'was it taken in shoes?',
  otherLandmark: 'was it another spot on the hip?',
  neighbouringMark: 'does the seat truly stand at that mark, or at the next one?',
  middleOfKneecap: 'did the string hang from the middle of the kneecap?',
  signTurned: 'was ahead taken for behind?',
}

function formatAnomaly(evidence: readonly Evidence[], anomaly: Anomaly): string {
  const name = evidenceName(evidence[anomaly.evidence].kind)
  if (anomaly.code === 'readAgain')
    return (
      `What was read of the ${name} at one mark does not go together. Read it once more, and ` +
      'undo what was misread; everything else is kept.'
    )
  if (anomaly.code === 'asymmetry')
    return (
      `Left and right differ by ${formatDegrees(Math.abs(anomaly.deg))}, the ` +
      `${anomaly.deg > 0 ? 'right' : 'left'} leg is the straighter one. Look for a twisted ` +
      'saddle, leaning, a foot or a leg that differs, and read both again.'
    )
  if (anomaly.code === 'sidesDiffer')
    return (
      `The ${name} differs from left to right. Look for a twisted saddle, leaning, a foot or a leg that differs, ` +
      'and look at both again.'
    )
  if (anomaly.code === 'rocksOneWay')
    return (
      'The pelvis rocks to one side only: sitting off-centre, a twisted saddle or legs that differ. Sight along ' +
      'the saddle first; the height is not changed for it.'
    )
  return anomaly.code === 'contradicts'
    ? `The ${name} does not go with the rest${anomaly.slip ? `: ${SLIP_TEXT[anomaly.slip]}` : ''}. Look at it once ` +
        'more, or undo it; everything else is kept.'
    : `The ${name} is rare for this stature. Measure both once more; if they hold, carry on.`
}
