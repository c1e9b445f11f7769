import type { Evidence } from '../evidence/registry'
import type { RecommendRequest } from '../../setups/recommend/request/request'
import { HOLES_BIKE as bikeType } from '../../testing/meanRider'

const at = (seatHeight: string) => ({ seatHeight, seatSlide: 'D' })
const ROWS: Evidence[] = [
  { kind: 'rider', experience: 'regular', soleMm: 12 },
  { kind: 'stature', mm: 1720 },
  { kind: 'inseam', mm: 830, shod: false },
  { kind: 'landmarkAtMark', landmark: 'hipCrest', at: at('9') },
  { kind: 'kneeByEye', seen: 'deepBend', at: at('8') },
  { kind: 'kneeAngle', deg: 38, by: 'goniometer', at: at('8') },
  { kind: 'plumb', mm: 12, at: at('8') },
  { kind: 'kneeAngle', deg: 31, by: 'goniometer', at: at('9') },
  { kind: 'heelCheck', seen: 'justStraight', at: at('9') },
  { kind: 'plumb', mm: 4, at: at('9') },
]
const request = (rows: number, more: Partial<RecommendRequest> = {}): RecommendRequest => ({
  bikeType,
  evidence: ROWS.slice(0, rows),
  samples: 600,
  ...more,
})

/** `advise` with empty caches. */
function fresh(): (request: RecommendRequest) => { belief: { kneeFlexionDeg: { mean: number; sd: number } } } {
  let advise: ReturnType<typeof fresh> | undefined
  jest.isolateModules(() => {
    advise = jest.requireActual<{ advise: ReturnType<typeof fresh> }>('../../setups/recommend/recommend').advise
  })
  return advise!
}

test('an answer is the same to the last bit whether earlier rows were evaluated before or not', () => {
  const used = fresh()
  for (let rows = 1; rows < ROWS.length; rows++) used(request(rows))
  for (const rows of [5, 9, 10]) expect(used(request(rows))).toEqual(fresh()(request(rows)))
})

test('what was remembered of one rider, bike or school never serves another', () => {
  const used = fresh()
  used(request(9))
  const other: Partial<RecommendRequest>[] = [
    { bikeType: { ...bikeType, crankMm: 165 } },
    { bike: { sdMm: { seatHeight: 6 } } },
    { school: { foot: 'level' } },
    { school: { heelCheck: 'unused' } },
    { seed: 2 },
    { samples: 700 },
    { prior: { tissueCompressionMm: { mean: 40, sd: 5 } } },
    { evidence: ROWS.map((row) => (row.kind === 'stature' ? { ...row, mm: 1760 } : row)) },
  ]
  for (const more of other) expect(used(request(9, more))).toEqual(fresh()(request(9, more)))
})

test('where a belief begins changes its figures by no more than sampling does', () => {
  const means = (rows: number) =>
    [1, 2, 3, 4, 5, 6].map((seed) => fresh()(request(rows, { seed })).belief.kneeFlexionDeg)
  const all = means(10)
  const mean = all.reduce((sum, knee) => sum + knee.mean, 0) / all.length
  // 600 samples of which at least a third count: a mean is known to sd/√200, six of them stray three times that at
  // most.
  for (const knee of all) expect(Math.abs(knee.mean - mean)).toBeLessThan((3 * knee.sd) / Math.sqrt(200))
})
