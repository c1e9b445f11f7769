import { TYPES } from '@/scripts/netloftHall'
import type { Marks } from '../conventions'
import type { Evidence } from '../evidence/registry'
import { createRng } from '../rng'
import { positionsOf } from '../scale/scale'
import { drawRider, goniometer, inAnotherSetup, plumbLine, POPULATIONS } from '../simulated/simulatedRider'
import { CAUSE_SHARE, rankMisSets, type MisSetCause } from './misSet'

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

test('what is said is as often so: stated chances of the first cause against 60 simulated bikes, seeded', () => {
  const random = createRng(77)
  let [stated, right, count] = [0, 0, 0]
  for (let i = 0; i < 60; i++) {
    // Drawn as the shares say, of the causes that a height can show.
    const u = random.uniform() * (CAUSE_SHARE.asSet + CAUSE_SHARE.offByOne)
    const by = u < CAUSE_SHARE.asSet ? 0 : random.uniform() < 0.5 ? -1 : 1
    const { marks, history, evidence } = lookedAt(100 + i, (m) => neighbour(m, by))
    const [first] = rankMisSets({ bikeType, marks, history, evidence, seed: i + 1 }).filter(
      ({ code }) => code === 'asSet' || code === 'offByOne',
    )
    const truth = by === 0 ? 'asSet' : neighbour(marks, by).seatHeight
    stated += first.chance
    right += (first.code === 'offByOne' ? first.truly : 'asSet') === truth ? 1 : 0
    count += 1
  }
  // Of the causes left out of the draw some of the chance goes elsewhere: it is right more often than said, never less.
  expect(right / count).toBeGreaterThan(stated / count - 0.08)
  expect(right / count).toBeGreaterThan(0.6)
})

test('the same question has the same answer', () => {
  const { marks, history, evidence } = lookedAt(5, (m) => neighbour(m, 1))
  const ask = () => rankMisSets({ bikeType, marks, history, evidence })
  expect(ask()).toEqual(ask())
})
