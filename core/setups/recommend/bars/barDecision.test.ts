import fc from 'fast-check'
import type { BikeType } from '../../../bikes/bike/bike'
import type { AxisName, Marks } from '../../../base/conventions'
import type { Evidence } from '../../../riders/evidence/registry'
import { recommend as answer } from '../../../operations/requests/recommend'
import { createRng } from '../../../base/rng'
import { positionsOf } from '../../../bikes/scale/scale'
import type { School } from '../../../base/school/school'
import { drawBarLookErrors, fittingSaddle, lookAtBars } from '../../../simulated/simulatedBars'
import { drawRider, POPULATIONS, trueFlexionDeg, truePlumbMm } from '../../../simulated/simulatedRider'
import { HOLES_BIKE } from '../../../testing/meanRider'
import { advise } from '../recommend'

const SADDLE: Marks = { seatHeight: '9', seatSlide: 'D' }
/** Grip level with the saddle at height 6 or 7 of the bike of holes. */
const at = (barHeight: string, barSlide: string): Marks => ({ ...SADDLE, barHeight, barSlide })
type Seen = Readonly<{
  elbows?: 'locked' | 'soft' | 'cramped'
  feel?: 'stretched' | 'right' | 'cramped'
  clearance?: 'clear' | 'touches'
}>
const saddleRead: Evidence[] = [
  { kind: 'inseam', mm: 820, shod: false },
  { kind: 'kneeAngle', deg: 30, by: 'goniometer', at: SADDLE },
  { kind: 'plumb', mm: 2, at: SADDLE },
]
const rowsOf = (marks: Marks, { elbows, feel, clearance }: Seen): Evidence[] => [
  { kind: 'set', at: marks },
  ...(elbows ? [{ kind: 'elbows', seen: elbows, at: marks } as const] : []),
  ...(feel ? [{ kind: 'reachFeel', seen: feel, at: marks } as const] : []),
  ...(clearance ? [{ kind: 'clearance', seen: clearance, at: marks } as const] : []),
]
type Setting = Readonly<{
  school?: Partial<School>
  rider?: Extract<Evidence, { kind: 'rider' }>
  bikeType?: BikeType
  more?: Evidence[]
}>
function ask(marks: Marks, seen: Seen, { school, rider, bikeType = HOLES_BIKE, more = [] }: Setting = {}) {
  const evidence: Evidence[] = [
    { kind: 'stature', mm: 1700 },
    rider ?? { kind: 'rider', experience: 'regular' },
    ...saddleRead,
    ...rowsOf(marks, seen),
    ...more,
  ]
  return answer({ bikeType, school, evidence, samples: 1000 })
}
const moveOf = (axis: AxisName, { next }: ReturnType<typeof ask>) =>
  next.moves.find((move) => move.axis === axis)?.mm ?? 0

test('locked elbows never send the bars away, also where they stand nearest already', () => {
  for (const barSlide of ['-4', '0', '4']) {
    const told = ask(at('7', barSlide), { elbows: 'locked', clearance: 'clear' })
    expect(moveOf('barSlide', told)).toBeLessThanOrEqual(0)
    expect(moveOf('barHeight', told)).toBeGreaterThanOrEqual(0)
  }
})

test('cramped arms never bring the bars nearer, also where they stand farthest already', () => {
  for (const barSlide of ['-4', '0', '4']) {
    const told = ask(at('7', barSlide), { elbows: 'cramped', feel: 'cramped', clearance: 'clear' })
    expect(moveOf('barSlide', told)).toBeGreaterThanOrEqual(0)
    expect(moveOf('barHeight', told)).toBeLessThanOrEqual(0)
  }
})

test('knees that touch send the bars away or up, never lower or nearer', () => {
  for (const elbows of ['locked', 'soft', 'cramped'] as const) {
    const told = ask(at('8', '-3'), { elbows, clearance: 'touches' })
    expect(moveOf('barSlide', told)).toBeGreaterThanOrEqual(0)
    expect(moveOf('barHeight', told)).toBeGreaterThanOrEqual(0)
    if (elbows === 'soft') expect(told.next.kind).toBe('change')
  }
})

test('soft elbows with clear knees are a passed check, wherever the rule would have the bars', () => {
  for (const barHeight of ['2', '7', '12']) {
    const { next, bars } = ask(at(barHeight, '0'), { elbows: 'soft', feel: 'right', clearance: 'clear' })
    expect(next).toMatchObject({ kind: 'stop', moves: [], barsWhy: 'passed' })
    expect(bars.height.label).toBe(barHeight)
  }
  const high = ask(at('12', '0'), { elbows: 'soft', clearance: 'clear' })
  expect(high.next.barsDisagreeMm).toBeGreaterThan(50)
  expect(high.next.sentence).toContain('higher than the rule: ask, and keep theirs.')
  expect(high.bars.sentence).toContain('By rule they would stand')
})

test('a reach that feels right passes though the elbows look locked; two that disagree are looked at again', () => {
  expect(ask(at('7', '0'), { elbows: 'locked', feel: 'right', clearance: 'clear' }).next.barsWhy).toBe('passed')
  const mixed = ask(at('7', '0'), { elbows: 'locked', feel: 'cramped', clearance: 'clear' })
  expect(mixed.next).toMatchObject({ kind: 'stop', moves: [], barsWhy: 'lookAgain' })
  const unseen = ask(at('12', '0'), { elbows: 'soft' })
  expect(unseen.next).toMatchObject({ kind: 'stop', moves: [], barsWhy: 'kneesNext' })
  expect(unseen.next.checks).toContain('clearance')
})

test('a height outside its window goes to the nearest mark inside, one axis, at most 40 mm at once', () => {
  // Nothing of reach was seen: the knees clear, and the bars stand 112 mm above, wanted 20 to 100.
  const rider = { kind: 'rider', experience: 'new' } as const
  const told = ask(at('11', '0'), { clearance: 'clear' }, { rider })
  expect(told.next.moves).toEqual([{ axis: 'barHeight', from: '11', to: '10', mm: -20 }])
  expect(told.bars.fits).toBe(true)
  const level = ask(at('12', '0'), { clearance: 'clear' })
  expect(level.next.moves).toEqual([{ axis: 'barHeight', from: '12', to: '10', mm: -40 }])
})

test('the sentence of a bar move names the effect on the bars, never the knee', () => {
  const { sentence } = ask(at('7', '2'), { elbows: 'locked', clearance: 'clear' }).next
  expect(sentence).toMatch(/^Bring the bars nearer .*: the elbows were locked, and the reach gets .* shorter\.$/)
  const raised = ask(at('12', '0'), { clearance: 'clear' }).next
  expect(raised.sentence).toMatch(
    /^Lower the bars two marks, 12 to 10, \d+ mm above the saddle: they stand too high\.$/,
  )
  for (const { sentence: one, expect: reads } of [ask(at('7', '2'), { elbows: 'locked' }).next, raised]) {
    expect(one).not.toContain('knee should')
    expect(reads.map(({ check }) => check)).toEqual(['barAgainstSaddle', 'reach'])
  }
})

test('long indoor experience alone means level; a wish lowers, and nothing else goes below the saddle', () => {
  const bars = (...more: Evidence[]) =>
    advise({ bikeType: HOLES_BIKE, evidence: [{ kind: 'stature', mm: 1700 }, ...more], samples: 1000 }).bars
  for (const experience of ['new', 'regular', 'experienced'] as const)
    expect(bars({ kind: 'rider', experience }).gripAboveSeatMm).toBeGreaterThanOrEqual(0)
  expect(bars({ kind: 'rider', experience: 'experienced' }).posture).toBe('level')
  expect(bars({ kind: 'wish', posture: 'low' }).gripAboveSeatMm).toBeLessThan(-15)
})

test('follows a wish recorded after the bars passed', () => {
  const more: Evidence[] = [{ kind: 'wish', posture: 'low' }]
  const told = ask(at('7', '0'), { elbows: 'soft', feel: 'right', clearance: 'clear' }, { more })
  expect(moveOf('barHeight', told)).toBeLessThan(0)
})

test('the bars’ slide waits for the saddle’s: first the cranks level', () => {
  const evidence: Evidence[] = [
    { kind: 'stature', mm: 1700 },
    saddleRead[1],
    ...rowsOf(at('7', '3'), { elbows: 'locked', clearance: 'clear' }),
  ]
  const { next, bars } = answer({ bikeType: HOLES_BIKE, evidence, samples: 1000 })
  expect(next.moves.map(({ axis }) => axis)).not.toContain('barSlide')
  expect(bars.sentence).toBe('First the cranks level: the saddle’s slide comes before the bars’.')
})

test('of simulated riders no step goes against the last look, none moves what is well, one axis at once', () => {
  const axis = (name: 'barHeight' | 'barSlide') => positionsOf(HOLES_BIKE.axes[name]!.scale)
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 1_000_000 }), fc.nat(), fc.nat(), (seed, height, slide) => {
      const random = createRng(seed)
      const rider = drawRider(POPULATIONS.own, HOLES_BIKE, random)
      const saddle = fittingSaddle(rider)
      fc.pre(saddle !== null)
      const marks: Marks = {
        ...saddle!,
        barHeight: axis('barHeight')[height % axis('barHeight').length].label,
        barSlide: axis('barSlide')[slide % axis('barSlide').length].label,
      }
      const { elbows, reachFeel: feel, clearance } = lookAtBars(rider, marks, drawBarLookErrors(random))
      const told = answer({
        bikeType: HOLES_BIKE,
        samples: 500,
        evidence: [
          { kind: 'stature', mm: rider.body.statureMm },
          { kind: 'kneeAngle', deg: trueFlexionDeg(rider, saddle!), by: 'goniometer', at: saddle! },
          { kind: 'kneeAngle', deg: trueFlexionDeg(rider, saddle!), by: 'goniometer', at: saddle! },
          { kind: 'plumb', mm: truePlumbMm(rider, saddle!), at: saddle! },
          ...rowsOf(marks, { elbows, feel, clearance }),
        ],
      })
      const [away, up] = [moveOf('barSlide', told), moveOf('barHeight', told)]
      if (elbows === 'locked') expect(away <= 0 && up >= 0).toBe(true)
      if (elbows === 'cramped') expect(away >= 0 && up <= 0).toBe(true)
      if (clearance === 'touches') expect(away >= 0 && up >= 0).toBe(true)
      if (clearance === 'clear' && (elbows === 'soft' || feel === 'right')) expect([away, up]).toEqual([0, 0])
      expect(Math.min(Math.abs(away), Math.abs(up))).toBe(0)
      expect(Math.max(Math.abs(away), Math.abs(up))).toBeLessThanOrEqual(40)
    }),
    { numRuns: 60, seed: 23 },
  )
})
