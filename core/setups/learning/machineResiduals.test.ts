import { createRng } from '../../base/rng'
import { REPORT_PROBABILITY, poolResiduals, type MachineCheck } from './machineResiduals'

const MACHINES = Array.from({ length: 12 }, (_, m) => `bike ${String(m + 1).padStart(2, '0')}`)
/** Two machines stand low by 8 and 12 mm, the others as machines of a type do. */
const truthOf = (random: ReturnType<typeof createRng>) =>
  new Map(MACHINES.map((machine, m) => [machine, m === 3 ? -8 : m === 8 ? -12 : random.normal()]))

/** Forty riders, each checked on every machine once by an instrument on both knees: 4 to 7 mm of height a check. */
function simulated(seed: number) {
  const random = createRng(seed)
  const truth = truthOf(random)
  const checks: MachineCheck[] = Array.from({ length: 40 }, (_, r) => r).flatMap((r) => {
    const own = 700 + 60 * random.normal()
    return MACHINES.map((machine) => {
      const sdMm = 4 + 3 * random.uniform()
      const heightMm = own - truth.get(machine)! + Math.hypot(sdMm, 3.5) * random.normal()
      return { machine, rider: `rider ${r}`, heightMm, sdMm }
    })
  })
  return { truth, checks }
}

test('of twelve machines the two that are off are named in twenty runs, no innocent twice; intervals hold', () => {
  let [both, innocents, covered, intervals] = [0, 0, 0, 0]
  for (let run = 1; run <= 20; run++) {
    const { truth, checks } = simulated(run)
    const found = poolResiduals(checks, run)
    const named = found.filter(({ offChance }) => offChance >= REPORT_PROBABILITY).map(({ machine }) => machine)
    both += named.includes('bike 04') && named.includes('bike 09') ? 1 : 0
    innocents += named.filter((machine) => machine !== 'bike 04' && machine !== 'bike 09').length
    for (const { machine, fromMm, toMm } of found) {
      intervals += 1
      covered += truth.get(machine)! >= fromMm && truth.get(machine)! <= toMm ? 1 : 0
    }
  }
  expect(both).toBe(20)
  expect(innocents).toBeLessThanOrEqual(1)
  expect(covered / intervals).toBeGreaterThanOrEqual(0.9)
  expect(covered / intervals).toBeLessThanOrEqual(0.99)
})

test('a rider checked on one machine alone is no evidence about it', () => {
  const [only] = poolResiduals([{ machine: 'a', rider: 'r', heightMm: 700, sdMm: 5 }])
  expect(Math.abs(only.mm)).toBeLessThan(0.5)
  expect(only.offChance).toBeLessThan(0.2)
})

test('one machine that is right for everybody higher by its marks stands low, with the number of riders', () => {
  const checks = Array.from({ length: 30 }, (_, r) => r).flatMap((r) => [
    { machine: 'a', rider: `r${r}`, heightMm: 700 + r, sdMm: 5 },
    { machine: 'b', rider: `r${r}`, heightMm: 712 + r, sdMm: 5 },
    { machine: 'c', rider: `r${r}`, heightMm: 700 + r, sdMm: 5 },
  ])
  const b = poolResiduals(checks).find(({ machine }) => machine === 'b')!
  expect(b.mm).toBeLessThan(-7)
  expect(b.riders).toBe(30)
  expect(b.offChance).toBeGreaterThan(REPORT_PROBABILITY)
  expect(poolResiduals(checks)).toEqual(poolResiduals(checks))
})
