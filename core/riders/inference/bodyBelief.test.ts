import { HOLES_BIKE } from '../../testing/meanRider'
import { advise } from '../../setups/recommend/recommend'
import { priorFromHistory, type EarlierSetup } from '../../setups/recommend/history/riderHistory'
import { DEFAULT_SCHOOL } from '../../base/school/school'
import { body } from '../../operations/requests/body'
import { PRIOR_PARTS, priorFor, priorVectorOf } from '../rider/prior'
import { bodyBelief, scoresFromBelief } from './bodyBelief'

const prior = priorVectorOf(priorFor('natural'))
const at = { seatHeight: '8', seatSlide: 'D' }
const history: EarlierSetup[] = [
  {
    bikeType: HOLES_BIKE,
    agoDays: 0,
    evidence: [
      { kind: 'stature', mm: 1810 },
      { kind: 'kneeAngle', deg: 31, by: 'goniometer', at },
      { kind: 'plumb', mm: 4, at },
    ],
  },
]
const NOTHING = { seatHeight: 0, seatSlide: 0 }
const sdOf = (widening: typeof NOTHING, part: (typeof PRIOR_PARTS)[number]) => {
  const { belief } = body({ history })
  const { root } = scoresFromBelief(belief!, prior, 'natural', widening)!
  const k = PRIOR_PARTS.indexOf(part)
  return prior.sds[k] * Math.sqrt(root.mmul(root.transpose()).get(k, k))
}

test('written and read again it is the same distribution', () => {
  const carried = priorFromHistory({ history, school: DEFAULT_SCHOOL, prior, seed: 1 })!
  const again = scoresFromBelief(bodyBelief(carried, prior, 'natural'), prior, 'natural', NOTHING)!
  const covariance = carried.root.mmul(carried.root.transpose())
  const read = again.root.mmul(again.root.transpose())
  for (const r of PRIOR_PARTS.keys()) {
    expect(again.mean[r]).toBeCloseTo(carried.mean[r], 3)
    for (const c of PRIOR_PARTS.keys()) expect(read.get(r, c)).toBeCloseTo(covariance.get(r, c), 3)
  }
})

test('another studio’s prior does not move what was believed', () => {
  const { belief } = body({ history })
  const tall = priorVectorOf(priorFor('natural', { statureMm: { mean: 1850, sd: 60 } }))
  const { mean } = scoresFromBelief(belief!, tall, 'natural', NOTHING)!
  expect(1850 + 60 * mean[0]).toBeCloseTo(belief!.mean[0], 2)
})

test('a first suggestion from the belief is that from the readings themselves', () => {
  const { belief } = body({ history })
  const request = { bikeType: HOLES_BIKE, evidence: [] }
  const byFile = advise({ ...request, body: { belief: belief!, agoDays: 0 } })
  const byRows = advise({ ...request, history })
  expect(byFile.marks).toEqual(byRows.marks)
  expect(byFile.chance).toBeCloseTo(byRows.chance, 1)
  const [reason] = byFile.next.reasons.filter(({ code }) => code === 'carriedBody')
  expect(reason).toEqual({ code: 'carriedBody', agoDays: 0 })
})

test('with age it widens, in height and in slide, and the chances fall', () => {
  const wide = { seatHeight: 10, seatSlide: 8 }
  expect(sdOf(wide, 'tissueCompressionMm')).toBeCloseTo(Math.hypot(sdOf(NOTHING, 'tissueCompressionMm'), 10), 2)
  expect(sdOf(wide, 'patellaAheadMm')).toBeCloseTo(Math.hypot(sdOf(NOTHING, 'patellaAheadMm'), 8), 2)
  expect(sdOf(wide, 'statureMm')).toBeCloseTo(sdOf(NOTHING, 'statureMm'), 6)
  const { belief } = body({ history })
  const chance = (agoDays: number) =>
    advise({ bikeType: HOLES_BIKE, evidence: [], body: { belief: belief!, agoDays } }).chance
  expect(chance(0)).toBeGreaterThan(chance(720) + 0.05)
})

test('a studio that has the foot level keeps its own foot', () => {
  const { belief } = body({ history })
  const level = priorVectorOf(priorFor('level'))
  const { mean } = scoresFromBelief(belief!, level, 'level', NOTHING)!
  expect(mean[PRIOR_PARTS.indexOf('bottomPitchDeg')]).toBe(0)
  expect(mean[PRIOR_PARTS.indexOf('forwardPitchDeg')]).toBe(0)
})

test('what is no distribution is no belief, and is passed over', () => {
  const { belief } = body({ history })
  const broken = { ...belief!, covariance: belief!.covariance.map((value) => -value) }
  expect(scoresFromBelief(broken, prior, 'natural', NOTHING)).toBeNull()
  const plain = advise({ bikeType: HOLES_BIKE, evidence: [] })
  expect(advise({ bikeType: HOLES_BIKE, evidence: [], body: { belief: broken, agoDays: 1 } }).marks).toEqual(
    plain.marks,
  )
  expect(body({ history: [] })).toEqual({ belief: null })
})
