import type { Evidence } from '../../riders/evidence/registry'
import { createRng } from '../../base/rng'
import { priorFor } from '../../riders/rider/prior'
import { schoolOf } from '../../base/school/school'
import { drawRider, goniometer, plumbLine, statureAndInseam } from '../../simulated/simulatedRider'
import { HOLES_BIKE } from '../../testing/meanRider'
import { MIN_SETUPS, riderScores, studioPrior } from './studioPrior'

const school = schoolOf()
const at = { seatHeight: '9', seatSlide: 'D' }

function studio(count: number, legs: number, seed = 2) {
  const random = createRng(seed)
  const population = priorFor('natural', { legFactor: { mean: legs, sd: 0.035 } })
  return Array.from({ length: count }, (_, k) => {
    const rider = drawRider(population, HOLES_BIKE, random)
    const evidence: Evidence[] = [...statureAndInseam(rider), goniometer(rider, at), plumbLine(rider, at)]
    return riderScores({ bikeType: HOLES_BIKE, evidence }, school, k)
  })
}

/** A studio like the published proportions. */
const usual = studio(40, 1)

test('with too few set-ups nothing moves', () => {
  const learned = studioPrior(usual.slice(0, MIN_SETUPS - 1), school)
  expect(learned.prior).toEqual({})
  expect(learned.setups).toBe(MIN_SETUPS - 1)
})

test('a studio of longer legs moves the mean leg toward its own, the more the more set-ups it has', () => {
  const riders = studio(60, 1.03)
  const [twelve, sixty] = [12, 60].map((n) => studioPrior(riders.slice(0, n), school).prior.legFactor!.mean)
  expect(twelve).toBeGreaterThan(1)
  expect(Math.abs(sixty - 1.03)).toBeLessThan(0.012)
  expect(studioPrior(riders, school).moved.legFactor.sd).toBeLessThan(0.3)
})

test('a studio like the published proportions stays with them', () => {
  const { moved } = studioPrior(usual, school)
  for (const { shift, sd } of Object.values(moved)) expect(Math.abs(shift)).toBeLessThan(2.5 * sd)
})

test('a few riders beyond all reason hardly move it', () => {
  const odd = riderScores(
    {
      bikeType: HOLES_BIKE,
      evidence: [
        { kind: 'stature', mm: 1650 },
        { kind: 'inseam', mm: 950, shod: false },
      ],
    },
    school,
  )
  const [clean, spoilt] = [usual, [...usual, odd, odd]].map((r) => studioPrior(r, school).moved.legFactor.shift)
  expect(Math.abs(spoilt - clean)).toBeLessThan(0.2)
})
