import { REGIONS, SIGNS, type Region, type Sign } from '../../classes/watch/signs'

/** Other words for the regions of the scan. */
const REGION_WORDS: Readonly<Record<string, Region>> = {
  ...Object.fromEntries(REGIONS.map((region) => [region, region])),
  knee: 'knees',
  hip: 'hips',
  foot: 'feet',
  back: 'spine',
  arms: 'hands',
  'arms, hands': 'hands',
  legs: 'load',
  'legs and load': 'load',
  'legs, load': 'load',
}

/** Other words for what is seen, beside the sign's own name. */
const OTHER_WORDS: Readonly<Record<string, string>> = {
  'arch instead of ball on the pedal': 'archOnPedal',
  'keeps moving back': 'movesBack',
  'pulling away from the bars on the fingertips': 'pullingAway',
  'locked at the bottom': 'locked',
  'twisted toward screen or instructor': 'twisted',
  'dropped heel': 'heelDropped',
  'toes down': 'toesDown',
  twisted: 'twisted',
}

const plain = (words: string): string => words.trim().toLowerCase().replaceAll(/\s+/g, ' ')

export const regionNamed = (words: string): Region | undefined => REGION_WORDS[plain(words)]

/** The sign of a region by its code, its name or its usual words; undefined where there is none such. */
export function seenSign(regionWords: string, what: string): Sign | undefined {
  const region = regionNamed(regionWords)
  const words = plain(what)
  return SIGNS.find(
    (sign) =>
      sign.region === region &&
      (sign.sign === what.trim() || plain(sign.name) === words || OTHER_WORDS[words] === sign.sign),
  )
}
