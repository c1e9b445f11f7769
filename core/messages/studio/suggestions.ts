import type { SuggestionRecord } from '../../setups/learning/firstSuggestions'

/** From so many set-ups on a comparison is worth a sentence. */
const MIN_COUNT = 10
/** Farther apart than this many standard errors is more than chance. */
const CLEAR = 2

/** Whether first suggestions were right as often as predicted, in a sentence that claims no more than their number. */
export function formatSuggestionRecord({ all: { count, stated, right, se } }: SuggestionRecord): string {
  const setups = count === 1 ? 'one finished, checked set-up' : `${count} finished, checked set-ups`
  if (count < MIN_COUNT)
    return `There ${count === 1 ? 'is' : 'are'} ${count === 0 ? 'none' : setups} so far; ten are needed.`
  const inHundred = (share: number) => `${Math.round(100 * share)} in 100`
  const figures =
    `Of the first saddles suggested in the last ${setups}, ${inHundred(right)} were right; ` +
    `${inHundred(stated)} was said`
  if (Math.abs(right - stated) <= CLEAR * se)
    return `${figures}. That is as often as stated, as far as ${count} can tell.`
  return right < stated
    ? `${figures}: less often than stated. Look at the tape readings of the bikes, and at how landmarks are found.`
    : `${figures}: more often than stated. The chances shown are cautious here.`
}
