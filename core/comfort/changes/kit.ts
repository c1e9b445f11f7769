import type { Cause } from '../model/causeTable'

/**
 * Advice on what a rider wears and does, where one of these causes is likely (common practice, no source; words
 * are ours).
 */
export type KitAdvice = Readonly<{ about: string; say: string; causes: readonly Cause[] }>

export const KIT_ADVICE: readonly KitAdvice[] = [
  {
    about: 'Shorts',
    say: 'Padded shorts, and the pad not worn out: it is done after a year or two of weekly classes.',
    causes: ['kit', 'saddleShape', 'newIndoors'],
  },
  {
    about: 'Underneath',
    say: 'Nothing under padded shorts: seams and damp cotton rub. Fresh shorts for every ride.',
    causes: ['kit', 'saddleShape'],
  },
  {
    about: 'Seams',
    say: 'Flat seams, none where one sits; a cloth over the saddle kept dry.',
    causes: ['kit', 'offCentre'],
  },
  {
    about: 'Shoes',
    say: 'A stiff sole, laces tucked in, the strap snug and not tight. Other shoes change the knee: say so.',
    causes: ['softShoe', 'strapOrCleat', 'changedShoes', 'footPlacement'],
  },
  {
    about: 'Cleats',
    say: 'Under the ball of the foot, turned as the foot hangs off the bike; worn ones wobble.',
    causes: ['strapOrCleat', 'footPlacement'],
  },
  {
    about: 'Gloves and grips',
    say: 'Gloves with a pad in the palm; thicker or shaped grips for large hands.',
    causes: ['kit', 'handHabit'],
  },
  {
    about: 'Hands',
    say: 'Another place for the hands every few minutes, wrists straight, the whole hand resting and the grip easy.',
    causes: ['handHabit', 'bracing', 'barsTooLow'],
  },
  {
    about: 'Knees',
    say: 'Less load and quicker legs; slow the wheel with the brake or the load before the feet stop.',
    causes: ['heavyLoad', 'saddleTooLow', 'saddleTooFarForward'],
  },
  {
    about: 'Breaks',
    say: 'Sit up, or stand for a few turns, in every long seated block.',
    causes: ['weakTrunk', 'newIndoors', 'saddleShape'],
  },
]

/** A cause counts as likely here from this share on; ours. */
const LIKELY_SHARE = 0.12
const MAX_ADVICE = 3

/** The advice for the likely causes, that of the heaviest first; each once. */
export function kitAdviceFor(causes: readonly Readonly<{ cause: Cause; weight: number }>[]): KitAdvice[] {
  const likely = causes.filter(({ weight }) => weight >= LIKELY_SHARE).toSorted((a, b) => b.weight - a.weight)
  return [...new Set(likely.flatMap(({ cause }) => KIT_ADVICE.filter((one) => one.causes.includes(cause))))].slice(
    0,
    MAX_ADVICE,
  )
}
