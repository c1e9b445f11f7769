import type { Evidence } from '../../../riders/evidence/registry'
import { recommend } from '../../../operations/requests/recommend'
import { HOLES_BIKE as bikeType } from '../../../testing/meanRider'
import type { RecommendRequest } from '../request/request'

const crest: Evidence = { kind: 'landmarkAtMark', landmark: 'hipCrest', at: { seatHeight: '11' } }
const at = { seatHeight: '9', seatSlide: 'D' }
const ask = (evidence: Evidence[], more: Partial<RecommendRequest> = {}) =>
  recommend({ bikeType, evidence, samples: 2000, ...more })
const names = (a: ReturnType<typeof ask>) => a.questions.map((q) => q.question)

test('with nothing known a tape is worth its time; in one line, with its reason', () => {
  const { ask: first } = ask([])
  expect(first?.question).toBe('inseam')
  expect(first?.sentence).toMatch(/^Take the inseam with a tape: about 20 seconds, saves 1 in \d+ riders a dismount\.$/)
})

test('what is known is not proposed again, and little is worth proposing once stature and inseam are', () => {
  const rich = ask([crest, { kind: 'stature', mm: 1700 }, { kind: 'inseam', mm: 820, shod: false }])
  expect(names(rich)).not.toContain('inseam')
  expect(names(rich)).not.toContain('hipCrestAtMark')
  expect(rich.ask).toBeUndefined()
})

test('before the rider mounts only what is done beside the bike is proposed, in the saddle only what is there', () => {
  expect(names(ask([crest]))).not.toContain('goniometer')
  const mounted = names(ask([crest, { kind: 'kneeByEye', seen: 'slightBend', at }]))
  expect(mounted).not.toContain('inseam')
  expect(mounted[0]).toBe('goniometer')
})

test('the studio’s own costs decide: a tape that takes ten minutes is not proposed', () => {
  expect(ask([crest], { costs: { inseam: 600, stature: 600, trochanterHeight: 600 } }).ask).toBeUndefined()
  expect(ask([crest], { costs: { dismount: 600 } }).ask?.question).toBe('inseam')
})

test('the stated gain is gained: over many answers the best mark is so much likelier', () => {
  const now = ask([crest], { samples: 4000 })
  const said = now.questions.find((q) => q.question === 'inseam')!.gain
  const best = (a: ReturnType<typeof ask>) => {
    const r = a.next.reasons.find((reason) => reason.code === 'chance')
    return r?.code === 'chance' ? r.chance : 0
  }
  // Inseams this rider may turn out to have, evenly over what is believed: mean and spread by simulation of the model.
  const { mean, sd } = now.belief.legMm
  const inseams = [-1.4, -0.85, -0.45, 0, 0.45, 0.85, 1.4].map((z) => mean - 81 + z * Math.hypot(0.85 * sd, 8))
  const gained = inseams.map((mm) => best(ask([crest, { kind: 'inseam', mm, shod: false }])) - best(now))
  const average = gained.reduce((a, b) => a + b, 0) / gained.length
  expect(Math.abs(average - said)).toBeLessThan(0.06)
})

test('no plumb line is proposed where the school hangs none', () => {
  const rows: Evidence[] = [crest, { kind: 'kneeAngle', deg: 30, by: 'goniometer', at }]
  const unused = ask(rows, { school: { foreAft: 'unused' } })
  expect(names(unused).filter((q) => q.startsWith('plumb'))).toEqual([])
  expect(unused.next.checks).not.toContain('plumb')
  expect(unused.chances.seatSlide!.every((c) => c.chance > 0.999)).toBe(true)
})
