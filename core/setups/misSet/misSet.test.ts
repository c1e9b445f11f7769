import { TYPES } from '@/scripts/netloftHall'
import type { Marks } from '../../base/conventions'
import type { Evidence } from '../../riders/evidence/registry'
import { createRng } from '../../base/rng'
import { positionsOf } from '../../bikes/scale/scale'
import {
  drawRider,
  goniometer,
  inAnotherSetup,
  plumbLine,
  POPULATIONS,
  type SimulatedRider,
} from '../../simulated/simulatedRider'
import { CAUSE_SHARE, rankMisSets, SLIPS_MM, SOLES_MM, type MisSetCause } from './misSet'

const bikeType = TYPES.sorrel
const heights = positionsOf(bikeType.axes.seatHeight.scale).filter(({ label }) => !label.includes('.'))
const rider = (seed: number) => drawRider(POPULATIONS.own, bikeType, createRng(seed))

/** A rider known by two set-ups at these marks, and looked at with the bike truly somewhere else. */
function lookedAt(seed: number, truly: (marks: Marks) => Marks) {
  const random = createRng(1000 + seed)
  const at = 4 + Math.floor(random.uniform() * (heights.length - 8))
  const marks: Marks = { seatHeight: heights[at].label, seatSlide: 'C', barHeight: '5', barSlide: '2' }
  const body = rider(seed)
  const rows = (where: Marks, said: Marks): Evidence[] => {
    const now = inAnotherSetup(body, bikeType)
    return [
      { ...goniometer(now, where), at: said },
      { ...goniometer(now, where), at: said },
      { ...plumbLine(now, where), at: said },
    ]
  }
  const history = [60, 30].map((agoDays) => ({ bikeType, evidence: rows(marks, marks), agoDays }))
  return { marks, history, evidence: rows(truly(marks), marks) }
}
const neighbour = (marks: Marks, by: number): Marks => ({
  ...marks,
  seatHeight: heights[heights.findIndex(({ label }) => label === marks.seatHeight) + by].label,
})

test('chances add up to one, and nothing wrong is the likeliest where all agrees', () => {
  const { marks, history, evidence } = lookedAt(1, (m) => m)
  const ranked = rankMisSets({ bikeType, marks, history, evidence })
  expect(ranked.reduce((sum, { chance }) => sum + chance, 0)).toBeCloseTo(1, 9)
  expect(ranked[0].code).toBe('asSet')
})

test('without anything seen the chances are those before', () => {
  const { marks, history } = lookedAt(2, (m) => m)
  const ranked = rankMisSets({ bikeType, marks, history, evidence: [] })
  for (const code of ['asSet', 'postSlipped'] as const)
    expect(ranked.find((one) => one.code === code)!.chance).toBeCloseTo(
      CAUSE_SHARE[code] / (1 - CAUSE_SHARE.otherType - (hasSwap(ranked) ? 0 : CAUSE_SHARE.swapped)),
      2,
    )
})
const hasSwap = (ranked: readonly MisSetCause[]) => ranked.some(({ code }) => code === 'swapped')

test('numbers of another type, and two exchanged, are found among the likely ones by name', () => {
  const { marks, history, evidence } = lookedAt(3, (m) => ({ ...m, seatHeight: '12' }))
  const elsewhere = [{ type: 'Bracken', marks: { seatHeight: '12', seatSlide: '1', barHeight: '4' } }]
  const ranked = rankMisSets({ bikeType, marks, history, evidence, elsewhere })
  expect(ranked[0]).toMatchObject({ code: 'otherType', type: 'Bracken' })
  const swappable = { ...marks, seatHeight: '5', barHeight: '10' }
  const swapped = rankMisSets({ bikeType, marks: swappable, history, evidence: [] })
  expect(swapped).toContainEqual(expect.objectContaining({ code: 'swapped', axes: ['seatHeight', 'barHeight'] }))
})

/** One of the causes drawn as often as `CAUSE_SHARE` says, with what it makes of marks and sole. */
function drawCause(marks: Marks, random: ReturnType<typeof createRng>) {
  const shares = Object.entries(CAUSE_SHARE) as [MisSetCause['code'], number][]
  let u = random.uniform() * shares.reduce((sum, [, share]) => sum + share, 0)
  const code = (shares.find(([, share]) => (u -= share) < 0) ?? shares[0])[0]
  const pick = <T>(all: readonly T[]): T => all[Math.floor(random.uniform() * all.length)]
  const slides = positionsOf(bikeType.axes.seatSlide.scale)
  const besideC = pick(['B', 'D'].filter((label) => slides.some((one) => one.label === label)))
  switch (code) {
    case 'offByOne':
      return {
        code,
        marks: random.uniform() < 0.5 ? neighbour(marks, pick([-1, 1])) : { ...marks, seatSlide: besideC },
      }
    case 'swapped':
      return { code, marks: { ...marks, seatHeight: marks.barHeight!, barHeight: marks.seatHeight! } }
    case 'otherType':
      return { code, marks: { ...marks, ...ELSEWHERE.marks } }
    case 'postSlipped':
      return { code, marks, slipMm: pick(SLIPS_MM) }
    case 'otherShoe':
      return { code, marks, soleMm: pick(SOLES_MM) }
    default:
      return { code: 'asSet' as const, marks }
  }
}
const ELSEWHERE = { type: 'Bracken', marks: { seatHeight: '12' } }

test('stated chances match frequencies over all causes, drawn as often as assumed, seeded', () => {
  const random = createRng(77)
  const bins = new Map<number, { stated: number; right: number; count: number }>()
  let [surprise, evenly] = [0, 0]
  for (let i = 0; i < 150; i++) {
    const at = 4 + Math.floor(random.uniform() * (heights.length - 8))
    const marks: Marks = { seatHeight: heights[at].label, seatSlide: 'C', barHeight: '5', barSlide: '2' }
    const body = rider(3000 + i)
    const cause = drawCause(marks, random)
    const rows = (slipMm: number, soleMm: number, where: Marks): Evidence[] => {
      const day = inAnotherSetup(body, bikeType)
      // A thicker sole is a lower saddle to the leg, and a slipped post is one.
      const now = loweredBy(day, slipMm + soleMm)
      return [goniometer(now, where), goniometer(now, where), plumbLine(now, where)].map((row) => ({
        ...row,
        at: marks,
      }))
    }
    const history = [60, 30].map((agoDays) => ({ bikeType, evidence: rows(0, 0, marks), agoDays }))
    const evidence = rows(cause.slipMm ?? 0, cause.soleMm ?? 0, cause.marks)
    const ranked = rankMisSets({ bikeType, marks, history, evidence, elsewhere: [ELSEWHERE], seed: i + 1 })
    for (const { code, chance } of summedByCode(ranked)) {
      const bin = chance < 0.1 ? 0 : chance < 0.5 ? 1 : 2
      const held = bins.get(bin) ?? { stated: 0, right: 0, count: 0 }
      held.stated += chance
      held.right += code === cause.code ? 1 : 0
      held.count += 1
      bins.set(bin, held)
    }
    surprise -= Math.log(Math.max(1e-6, summedByCode(ranked).find(({ code }) => code === cause.code)?.chance ?? 0))
    evenly -= Math.log(CAUSE_SHARE[cause.code])
  }
  for (const { stated, right, count } of bins.values()) {
    const off = Math.abs(stated - right) / count
    // Two and a half of a count's own spreads.
    expect(off).toBeLessThan((2.5 * Math.sqrt((stated / count) * (1 - stated / count))) / Math.sqrt(count) + 0.01)
  }
  // And looking tells much: the cause surprises less than by its share alone.
  expect(surprise / evenly).toBeLessThan(0.8)
})

const summedByCode = (ranked: readonly (MisSetCause & { chance: number })[]) =>
  (Object.keys(CAUSE_SHARE) as MisSetCause['code'][]).map((code) => ({
    code,
    chance: ranked.filter((one) => one.code === code).reduce((sum, { chance }) => sum + chance, 0),
  }))

/** The rider as on a saddle that stands lower along its post, mm. */
const loweredBy = (of: SimulatedRider, mm: number): SimulatedRider => ({
  ...of,
  leg: {
    ...of.leg,
    hipAheadMm: of.leg.hipAheadMm.map((x) => x - mm * Math.cos((POST_DEG * Math.PI) / 180)),
    hipAboveSeatMm: of.leg.hipAboveSeatMm.map((y) => y - mm * Math.sin((POST_DEG * Math.PI) / 180)),
  },
})
const POST_DEG = bikeType.axes.seatHeight.directionDeg

test('the same question has the same answer', () => {
  const { marks, history, evidence } = lookedAt(5, (m) => neighbour(m, 1))
  const ask = () => rankMisSets({ bikeType, marks, history, evidence })
  expect(ask()).toEqual(ask())
})
