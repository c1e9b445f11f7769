import { createRng } from '../../base/rng'
import { priorFor } from '../../riders/rider/prior'
import { drawRider, goniometer, plumbLine, statureAndInseam } from '../../simulated/simulatedRider'
import { HOLES_BIKE } from '../../testing/meanRider'
import { firstSuggestion, suggestionRecord, type CheckedSetup } from './firstSuggestions'

const at = { seatHeight: '9', seatSlide: 'D' }

/** Set-ups of riders whose legs are so long for their stature, measured with tape, goniometer and string. */
function setups(count: number, legs: number): CheckedSetup[] {
  const random = createRng(7)
  const population = priorFor('natural', { legFactor: { mean: legs, sd: 0.035 } })
  return Array.from({ length: count }, () => {
    const rider = drawRider(population, HOLES_BIKE, random)
    const [stature] = statureAndInseam(rider)
    const rows = [goniometer(rider, at), plumbLine(rider, at), goniometer(rider, { ...at, seatHeight: '10' })]
    return { bikeType: HOLES_BIKE, evidence: [stature, ...rows] }
  })
}
const recordOf = (legs: number) =>
  suggestionRecord(setups(24, legs).map((setup, i) => firstSuggestion(setup, {}, 2 * i + 1)))

test('of riders like the model’s own as many first suggestions are right as was stated', () => {
  const { all, groups } = recordOf(1)
  expect(all.count).toBe(24)
  expect(Math.abs(all.right - all.stated)).toBeLessThan(2 * all.se)
  expect(groups.reduce((sum, { count }) => sum + count, 0)).toBe(24)
  expect(groups.map(({ stated }) => stated)).toEqual(groups.map(({ stated }) => stated).sort((a, b) => a - b))
})

test('of riders with far longer legs than it believes far fewer are right: the record shows it', () => {
  const { all } = recordOf(1.09)
  expect(all.stated - all.right).toBeGreaterThan(2 * all.se)
})

test('what was read after the first look does not change what was stated', () => {
  const [setup] = setups(1, 1)
  const short = { ...setup, evidence: setup.evidence.slice(0, 2) }
  expect(firstSuggestion(short, {}).stated).toBe(firstSuggestion(setup, {}).stated)
})

test('a handful is one group, fewer are none, nothing is nothing', () => {
  const one = { stated: 0.5, right: 0.75 }
  expect(suggestionRecord([])).toEqual({ all: { count: 0, stated: 0, right: 0, se: 0 }, groups: [] })
  expect(suggestionRecord([one]).groups).toEqual([])
  expect(suggestionRecord(Array(5).fill(one)).groups).toEqual([
    { count: 5, stated: 0.5, right: 0.75, se: 0.5 / Math.sqrt(5) },
  ])
})
