import { causeRow } from '@/core/comfort/model/causeTable'
import { FELT_NAME, formatOneSidedBike, formatShare, formatTellingCue } from '@/core/messages/comfort/comfort'
import { capitalized } from '@/core/messages/words/phrases'
import { wilson } from '@/core/classes/watch/proportions'
import { PICTURE_WEEKS, type StudioPicture } from '@/server/pages/comfort/picture'

/** The studio's picture in words. */
export type PicturePage = Readonly<{
  lead: string
  bikes: readonly Readonly<{ id: string; text: string }>[]
  cues: readonly string[]
  noCues: string
  complaints: readonly Readonly<{
    what: string
    type: string
    shareText: string
    share: number
    low: number
    high: number
  }>[]
  trials: readonly Readonly<{ cause: string; text: string; outcomeText: string | null }>[]
}>

/** Minimum ended trials for a share. */
const MIN_TRIALS = 10
const MAX_SHARES = 12

export const picturePage = (picture: StudioPicture): PicturePage => ({
  lead:
    `${picture.rides.toLocaleString('en')} rides of ${picture.riders} riders in the last ${PICTURE_WEEKS} weeks. ` +
    'Only clear patterns are shown. What is missing here may still be so.',
  bikes: picture.bikes.map((one) => ({ id: one.bikeId, text: formatOneSidedBike(one, one.number) })),
  cues: picture.cues.map(formatTellingCue),
  noCues:
    picture.cueLooks === 0
      ? 'No cue was looked at a second time yet.'
      : `No cue holds more or less often than the others, as far as ${picture.cueLooks} second looks can tell.`,
  complaints: picture.complaints.slice(0, MAX_SHARES).map(({ what, type, count }) => ({
    what: FELT_NAME[what],
    type,
    shareText: formatShare(count),
    share: count.changed / count.of,
    ...wilson(count),
  })),
  trials: picture.trials.map(({ cause, ended, running }) => {
    const of = ended.keep + ended.undo + ended.next
    const parts = [
      ended.keep > 0 && `${ended.keep} kept`,
      ended.undo > 0 && `${ended.undo} undone`,
      ended.next > 0 && `${ended.next} gone on from`,
      running > 0 && `${running} running`,
    ].filter(Boolean)
    return {
      cause: capitalized(causeRow(cause).name),
      text: parts.join(', '),
      outcomeText: of >= MIN_TRIALS ? `Kept: ${formatShare({ changed: ended.keep, of })}` : null,
    }
  }),
})
