/** Words on printed cards, class sheets and bike tags. */
export const CARD_TEXT = Object.freeze({
  card: 'Settings card',
  tags: 'Bike tags',
  codes: 'Codes for the bikes',
  closePins: 'Off the bike to adjust; close and shake every pin; never past the insertion mark.',
  stopWheel: 'Direct drive: slow it with the resistance or the stop lever.',
  onPhone: 'Your numbers on your phone',
  scan: 'Scan it: this bike set up for you',
  nobody: 'Nobody sits anywhere yet.',
  noNumbers: 'no numbers yet',
})

/** "Class, Thu 26 Nov", the title of a class sheet. */
export const formatSheetTitle = (day: string): string => `Class, ${day}`

/** "As of 18:05", beside the date of a sheet. */
export const formatSheetTime = (time: string): string => `As of ${time}`
