import type { TiltAssessment } from '../../bikes/bike/tilt'

const formatTenths = (deg: number): string => `${(Math.round(10 * Math.abs(deg)) / 10).toFixed(1)}°`

/** "Nose down 5.2°; 0 to 2° down is wanted." with what it tends to cause and where the cause usually lies. */
export function formatTilt({ deg, windowDeg: [low, high], outcome, alarm }: TiltAssessment): {
  sentence: string
  because: string[]
} {
  const way = Math.abs(deg) < 0.05 ? 'Level' : `Nose ${deg < 0 ? 'down' : 'up'} ${formatTenths(deg)}`
  const direction =
    high > 0 ? `${-low}° down to ${high}° up` : high === 0 ? `level to ${-low}° down` : `${-high} to ${-low}° down`
  if (outcome === 'good') return { sentence: `${way}: as wanted, ${direction}.`, because: [] }
  return {
    sentence: `${way}; ${direction} is wanted.${alarm ? ' That is far off.' : ''}`,
    because: [
      outcome === 'noseUp'
        ? 'Nose up rolls the pelvis back and presses in front.'
        : 'Too far down slides the rider forward, loads the hands and the front of the knee.',
      'A marked tilt is usually a symptom of reach, bar height or seat height: look there before levelling.',
      'Rails give under weight: slid far back they nose up, far forward they nose down. Ask how it feels loaded.',
    ],
  }
}
