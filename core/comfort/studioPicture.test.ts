import { simulateStudio } from '../simulated/simulatedStudio'
import { SIGNS } from '../classes/watch/signs'
import { oneSidedBikes, significantCues, type RideRecord } from './studioPicture'

const signs = SIGNS.slice(0, 8).map(({ sign }) => sign)
const STUDIO = { riders: 200, weeks: 20, bikes: 24, signs }
const SEEDS = Array.from({ length: 10 }, (_, i) => i + 1)

test('200 riders over 20 weeks: a saddle turned by 4 mm and a cue that works twice as often are both found', () => {
  const found = SEEDS.map((seed) => {
    const { rides, cues } = simulateStudio(seed, {
      ...STUDIO,
      turned: { bikeId: 'bike-7', mm: 4, side: 'left' },
      better: { sign: signs[3], times: 2 },
    })
    return [oneSidedBikes(rides)[0], significantCues(cues)[0]]
  })
  for (const [bike, cue] of found) {
    expect(bike).toMatchObject({ bikeId: 'bike-7', side: 'left' })
    expect(cue).toMatchObject({ sign: signs[3], holds: 'more' })
  }
})

test('without them nothing is found in nine of ten studios', () => {
  const quiet = SEEDS.filter((seed) => {
    const { rides, cues } = simulateStudio(100 + seed, STUDIO)
    return oneSidedBikes(rides).length === 0 && significantCues(cues).length === 0
  })
  expect(quiet.length).toBeGreaterThanOrEqual(9)
})

const rides = (bikeId: string, riders: readonly string[], oneSided: RideRecord['oneSided']): RideRecord[] =>
  riders.map((memberId) => ({ memberId, bikeId, oneSided }))
const named = (count: number, from = 0) => Array.from({ length: count }, (_, i) => `m${from + i}`)

test('small numbers are no finding: two of two complained, and nothing is stated', () => {
  expect(oneSidedBikes([...rides('a', named(2), 'left'), ...rides('b', named(60), null)])).toEqual([])
})

test('who feels the same side on other bikes too carries it along: it is not the bike', () => {
  const carriers = named(6)
  const everywhere = ['a', 'b', 'c', 'd'].flatMap((bikeId) => rides(bikeId, carriers, 'right'))
  const others = ['a', 'b', 'c', 'd'].flatMap((bikeId) => rides(bikeId, named(20, 10), null))
  expect(oneSidedBikes([...everywhere, ...others])).toEqual([])
})

test('one rider who complains of the same bike every week is one rider', () => {
  const often = Array.from({ length: 30 }, () => rides('a', ['m0'], 'left')).flat()
  expect(oneSidedBikes([...often, ...rides('a', named(20, 1), null), ...rides('b', named(60), null)])).toEqual([])
})

test('ten of twelve riders on one bike, none elsewhere: with the exact chance', () => {
  const [bike] = oneSidedBikes([
    ...rides('a', named(10), 'left'),
    ...rides('a', named(2, 10), null),
    ...rides('b', named(60), null),
  ])
  expect(bike).toMatchObject({
    bikeId: 'a',
    side: 'left',
    here: { changed: 10, of: 12 },
    elsewhere: { changed: 0, of: 60 },
  })
  // Binomial tail with share 1/62: the sum over 10, 11 and 12 of 12, by hand.
  const p = 1 / 62
  const term = (k: number, ways: number) => ways * p ** k * (1 - p) ** (12 - k)
  expect(bike.pValue).toBeCloseTo(term(10, 66) + term(11, 12) + term(12, 1), 12)
})
