import type { Block } from './blocks'

/** A reminder to the room that is due without any sign seen: move the hands, or a few turns out of the saddle. */
export type Reminder = 'hands' | 'sitUp'

/** Longest time with the hands at one place, and in the saddle without a break, minutes. */
const HANDS_EVERY_MIN = 5
const BREAK_EVERY_MIN = 10

/**
 * The reminder of a minute of the class, counted from 0: each time hands have lain at one place, or riders have sat
 * without a break, for another full stretch; for that minute alone. A break comes before the hands (common practice, no
 * source).
 */
export function reminderAt(blocks: readonly Block[], minute: number): Reminder | null {
  const { seated, sameHands } = stretchAt(blocks, minute)
  if (isDue(seated, BREAK_EVERY_MIN)) return 'sitUp'
  return isDue(sameHands, HANDS_EVERY_MIN) ? 'hands' : null
}

const isDue = (minutes: number, every: number): boolean => minutes >= every && minutes % every < 1

/** Minutes since the last time out of the saddle, and since the hands moved; 0 where no block runs. */
function stretchAt(blocks: readonly Block[], minute: number): Readonly<{ seated: number; sameHands: number }> {
  let [from, seated, sameHands, hands] = [0, 0, 0, 0]
  for (const block of blocks) {
    if (minute < from) break
    const passed = Math.min(block.minutes, minute - from)
    const isBreak = block.posture === 'standing' || block.move === 'sitUp'
    seated = isBreak ? 0 : seated + passed
    sameHands = block.hands === hands && !isBreak ? sameHands + passed : passed
    hands = block.hands
    from += block.minutes
  }
  return minute >= from ? { seated: 0, sameHands: 0 } : { seated, sameHands }
}

/** The sentence for the room. */
export const REMINDER_TEXT: Readonly<Record<Reminder, string>> = {
  hands: 'Hands somewhere else, wrists straight, grip light',
  sitUp: 'A few turns out of the saddle',
}
