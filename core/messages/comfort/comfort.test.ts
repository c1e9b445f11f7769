import {
  formatComplaint,
  formatOneSidedBike,
  formatRatings,
  formatShare,
  formatTellingCue,
  formatTrialAge,
  formatTrialOnFloor,
  formatTrialStage,
  formatWhen,
} from './comfort'

test('a complaint with its side, its strength and when it comes', () => {
  expect(formatComplaint({ what: 'frontKnee', side: 'left', strength: 6 })).toBe('The front of the knee, left, 6 of 10')
  expect(formatComplaint({ what: 'stretched', side: null, strength: 2 })).toBe('Feeling stretched, 2 of 10')
  expect(formatWhen({ moment: 'late', lasts: true })).toBe('Late in the ride, outlasts the ride')
  expect(formatWhen({ moment: null, lasts: false })).toBe('Gone after the ride')
  expect(formatWhen({ moment: null, lasts: null })).toBe('')
})

test('a trial by its days and rides, what is proposed, and in a few words for a tile', () => {
  expect(formatTrialAge({ days: 4.6, weeks: 2, rides: 1 })).toBe('day 5 of 14, 1 ride')
  expect(formatTrialAge({ days: 16.2, weeks: 2, rides: 3 })).toBe('16 days, 3 rides')
  expect(formatTrialStage('early', null, 'unknown')).toMatch(/may feel odd/)
  expect(formatTrialStage('early', 'undo', 'worse')).toMatch(/going back/)
  expect(formatTrialStage('over', null, 'unknown')).toMatch(/ask how it is/)
  expect(formatTrialStage('over', null, 'same')).toMatch(/two rides/)
  expect(formatTrialStage('due', 'keep', 'better')).toMatch(/keeping it is proposed/)
  expect(formatTrialStage('due', 'next', 'same')).toMatch(/changed little/)
  expect(formatTrialOnFloor({ stage: 'early', verdict: 'worse' })).toBe('trial: worse')
  expect(formatTrialOnFloor({ stage: 'early', verdict: 'unknown' })).toBe('on trial')
  expect(formatTrialOnFloor({ stage: 'due', verdict: 'better' })).toBe('trial: ask now')
  expect(formatRatings(6, [5, 3])).toBe('6 → 5 → 3 of 10')
})

test('a share never without its uncertainty (Wilson 1927: 81 of 263 lies between 25.5 and 36.6 %)', () => {
  // Newcombe 1998, Statistics in Medicine 17:857–872, table I, method 3 (from memory): 81 of 263 is 0.2553 to 0.3662.
  expect(formatShare({ changed: 81, of: 263 })).toBe('81 of 263, somewhere from 26 to 37 %')
})

test('a saddle and a cue that stand out, with figures and doubt', () => {
  const bike = {
    bikeId: 'b',
    side: 'left',
    here: { changed: 9, of: 20 },
    elsewhere: { changed: 12, of: 400 },
    pValue: 0.002,
  } as const
  expect(formatOneSidedBike(bike, 7)).toMatch(/^Bike 7: 9 of 20 riders felt the left side alone, elsewhere 12 of 400/)
  expect(formatOneSidedBike(bike, 7)).toContain('a chance of 1 in 500.')
  expect(formatOneSidedBike({ ...bike, pValue: 1e-9 }, 7)).toContain('less than 1 in 10,000')
  const cue = {
    sign: 'kneesOut',
    holds: 'less',
    own: { changed: 4, of: 40 },
    others: { changed: 60, of: 150 },
    difference: -0.3,
    low: -0.42,
    high: -0.1,
  } as const
  expect(formatTellingCue(cue)).toBe(
    'Knees out: its cue held for 4 of 40, the others for 60 of 150: 10 % to 42 % less often.',
  )
})
