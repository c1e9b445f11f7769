import { dispatch } from '../../../operations/dispatch'
import type { Recommendation } from '../../../operations/requests/recommend'
import type { BikeType } from '../../../bikes/bike/bike'
import { axisPositions, contactPoints } from '../../../bikes/bike/contactPoints'
import { crankMmAt } from '../../../bikes/bike/standing'
import type { Evidence } from '../../../riders/evidence/registry'
import { CRANK_LENGTH, NO_SLIDE_BIKE, SIX_BIKE } from '../../../testing/furtherTypes'
import { HOLES_BIKE } from '../../../testing/meanRider'

const ask = (bikeType: BikeType, evidence: readonly Evidence[], more: object = {}): Recommendation => {
  const answer = dispatch('recommend', { bikeType, evidence, samples: 1500, ...more })
  if ('error' in (answer as object)) throw new Error(JSON.stringify(answer))
  return answer as Recommendation
}
const tape = (mm: number): Evidence[] => [{ kind: 'stature', mm }]
const knee = (deg: number, at: object): Evidence => ({ kind: 'kneeAngle', by: 'goniometer', deg, at })
const issuesOf = (bikeType: object) => {
  const answer = dispatch('place', { bikeType, marks: {} }) as {
    error?: { faults: { pointer: string; reason: string }[] }
  }
  return answer.error?.faults.map(({ pointer, reason }) => `${pointer} ${reason}`) ?? []
}

describe('a machine with six adjustments', () => {
  test('the start names every adjustment in its order, in the words of the bike', () => {
    const { next } = ask(SIX_BIKE, tape(1700))
    expect(next.moves.map(({ axis }) => axis)).toEqual([
      'seatHeight',
      'seatSlide',
      'barHeight',
      'barSlide',
      'frameHeight',
      'crankLength',
    ])
    expect(next.sentence).toMatch(/Lift at A, crank length at 170\. Then look/)
    const inHand = ask({ ...SIX_BIKE, order: ['frameHeight', 'seatHeight'] }, tape(1700))
    expect(inHand.next.moves.slice(0, 3).map(({ axis }) => axis)).toEqual(['frameHeight', 'seatHeight', 'seatSlide'])
  })

  test('a reading counts by where the saddle truly was: lifted by the frame or by the post is the same', () => {
    const byPost = ask(SIX_BIKE, [...tape(1700), knee(33, { seatHeight: '9', seatSlide: 'D', frameHeight: 'A' })])
    const byFrame = ask(SIX_BIKE, [...tape(1700), knee(33, { seatHeight: '7', seatSlide: 'D', frameHeight: 'C' })])
    expect(byFrame.belief.legMm.mean).toBeCloseTo(byPost.belief.legMm.mean, 6)
    expect(byFrame.belief.kneeFlexionDeg.mean).toBeCloseTo(byPost.belief.kneeFlexionDeg.mean, 6)
  })

  test('on shorter cranks the same saddle leaves the knee more bent: the reading says a shorter leg', () => {
    const at = { seatHeight: '9', seatSlide: 'D', frameHeight: 'A' }
    const [long, short] = ['170', '155'].map((crankLength) =>
      ask(SIX_BIKE, [...tape(1700), knee(33, { ...at, crankLength })]),
    )
    expect(long.belief.legMm.mean - short.belief.legMm.mean).toBeGreaterThan(8)
  })

  test('a rider beyond the post: the frame is lifted where there is one, else another type is offered', () => {
    const short: BikeType = { ...SIX_BIKE, axes: { ...SIX_BIKE.axes, seatHeight: cutAt(8) } }
    const { crankLength: _, frameHeight: __, ...four } = short.axes
    expect(ask({ ...short, axes: four }, tape(1800)).next.kind).toBe('outOfRange')
    const { next, chances } = ask(short, tape(1800))
    expect(next.kind).toBe('start')
    const lift = next.moves.find(({ axis }) => axis === 'frameHeight')!
    expect('BCDE').toContain(lift.to)
    expect(next.because.join(' ')).toMatch(/Moved with the rest, the Lift makes it right for \d+ in 100 more/)
    expect(chances.frameHeight!.map(({ label }) => label)).toEqual(['A', 'B', 'C', 'D', 'E'])
  })

  test('after a reading the frame moves only where seat height and slide have ended', () => {
    const short: BikeType = { ...SIX_BIKE, axes: { ...SIX_BIKE.axes, seatHeight: cutAt(8) } }
    const at = { seatHeight: '8', seatSlide: 'D', barHeight: '6', barSlide: '0', frameHeight: 'A', crankLength: '170' }
    const stuck = ask(short, [...tape(1800), knee(47, at)])
    expect(stuck.next).toMatchObject({ kind: 'change' })
    expect(stuck.next.moves[0]).toMatchObject({ axis: 'frameHeight', from: 'A' })
    const onWay = ask(short, [...tape(1700), knee(38, { ...at, seatHeight: '6' })])
    expect(onWay.next.moves.map(({ axis }) => axis)).not.toContain('frameHeight')
  })

  test('a short rider is offered shorter cranks with what that does; a tall one keeps the usual', () => {
    const small = ask(SIX_BIKE, tape(1500)).next
    expect(small.moves.find(({ axis }) => axis === 'crankLength')!.to).not.toBe('170')
    const reason = small.reasons.find(({ code }) => code === 'shorterCranks')
    expect(reason).toMatchObject({ fromMm: 170 })
    if (reason?.code !== 'shorterCranks') throw new Error('no reason')
    expect(reason.thenDeg).toBeLessThan(reason.topDeg)
    // The pedal at its farthest is nearer by what the cranks are shorter: the seat goes up by about as much.
    expect(reason.seatMm).toBeGreaterThan(0)
    expect(reason.seatMm).toBeLessThan(reason.fromMm - reason.toMm + 25)
    expect(small.because.join(' ')).toMatch(/On cranks of 170 mm the knee would bend 1\d\d° at the top/)
    expect(ask(SIX_BIKE, tape(1800)).next.moves.find(({ axis }) => axis === 'crankLength')!.to).toBe('170')
  })

  test('crank length of marks: the named one, else the type’s own', () => {
    expect(crankMmAt(SIX_BIKE, { crankLength: '155' })).toBe(155)
    expect(crankMmAt(SIX_BIKE, {})).toBe(170)
    expect(crankMmAt(HOLES_BIKE, { crankLength: '155' })).toBe(HOLES_BIKE.crankMm)
  })

  test('the frame carries saddle and bars alike', () => {
    const at = (frameHeight: string) => contactPoints(SIX_BIKE, undefined, axisPositions(SIX_BIKE, { frameHeight }))
    const [low, high] = [at('A'), at('E')]
    expect(high.seat.yMm - low.seat.yMm).toBeCloseTo(high.grip.yMm - low.grip.yMm, 9)
    expect(high.lengths.reachMm).toBeCloseTo(low.lengths.reachMm, 9)
  })
})

describe('a machine without a seat slide', () => {
  test('the slide is named nowhere, and no plumb line is asked for', () => {
    const start = ask(NO_SLIDE_BIKE, tape(1700))
    expect(start.next.moves.map(({ axis }) => axis)).toEqual(['seatHeight', 'barHeight', 'barSlide'])
    expect(start.marks.seatSlide).toBeUndefined()
    expect(start.chances.seatSlide).toBeUndefined()
    expect(start.next.checks).not.toContain('plumb')
    expect([start.next.sentence, ...start.next.because].join(' ')).not.toMatch(/slide at|plumb/)
    const read = ask(NO_SLIDE_BIKE, [...tape(1700), knee(45, start.marks)])
    expect(read.next.kind).toBe('change')
    expect(read.next.moves.every(({ axis }) => axis === 'seatHeight')).toBe(true)
  })
})

describe('bad input', () => {
  const withAxis = (axes: object) => ({ ...HOLES_BIKE, axes: { ...HOLES_BIKE.axes, ...axes } })
  const scale = CRANK_LENGTH.scale

  test('two adjustments of one part along one line, with which', () => {
    const along = HOLES_BIKE.axes.seatHeight.directionDeg
    expect(issuesOf(withAxis({ seatExtra: { directionDeg: along + 181, scale } }))).toEqual([
      '/bikeType/axes/seatExtra/directionDeg runs along the same line as the seat height: one of the two is enough',
    ])
    // The frame carries the bars too: along the post's own line it is another adjustment.
    expect(issuesOf(SIX_BIKE)).toEqual([])
  })

  test('an adjustment that moves nothing', () => {
    const one = { marks: [{ label: 'A', mm: 5 }], halfMarks: false }
    expect(issuesOf(withAxis({ frameHeight: { directionDeg: 90, scale: one } }))).toEqual([
      '/bikeType/axes/frameHeight/scale moves nothing: its marks all lie at one place',
    ])
  })

  test('cranks without a length', () => {
    const sizes = { marks: [{ label: 'S', mm: 1 }, { label: 'L', mm: 2 }], halfMarks: false } // prettier-ignore
    expect(issuesOf(withAxis({ crankLength: { directionDeg: 0, scale: sizes } }))).toEqual([
      '/bikeType/axes/crankLength/scale has a mark without a length of cranks: 50 to 300 mm is possible',
    ])
  })

  test('an order that names what the type lacks', () => {
    expect(issuesOf({ ...HOLES_BIKE, order: ['frameHeight'], axes: NO_SLIDE_BIKE.axes })).toEqual([
      '/bikeType/order/0 Testwort has no frame height',
    ])
  })
})

/** The seat's first so many holes. */
function cutAt(count: number): BikeType['axes']['seatHeight'] {
  const { seatHeight } = HOLES_BIKE.axes
  if (!('marks' in seatHeight.scale)) throw new Error('not printed')
  return { ...seatHeight, scale: { ...seatHeight.scale, marks: seatHeight.scale.marks.slice(0, count) } }
}
