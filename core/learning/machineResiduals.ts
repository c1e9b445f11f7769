import { Matrix } from 'ml-matrix'
import { createRng } from '../rng'

/** A rider checked on a machine: the height that would be right there, by its marks, mm, and its one spread. */
export type MachineCheck = Readonly<{ machine: string; rider: string; heightMm: number; sdMm: number }>

/** What the riders checked on a machine say of it. */
export type PooledResidual = Readonly<{
  machine: string
  /** How much lower (minus) or higher its seat stands than its marks say, mm; and the central 95 of 100. */
  mm: number
  fromMm: number
  toMm: number
  riders: number
  /** The chance that it is off at all, rather than as machines of a type are. */
  offChance: number
}>

/** Machines of a type stray by so much; those that are off, by this; and so many are, before any check. Ours. */
const USUAL_SD_MM = 1.5
const OFF_SD_MM = 10
const OFF_SHARE = 0.15
/** From one day to the next the same rider is right at another height by this, mm (`SETUP_HABIT_SD_MM`). */
const HABIT_SD_MM = 3.5
/** A machine off by as likely as this is named to the manager. */
export const NAMED_FROM = 0.8

const SWEEPS = 3000
const BURN_IN = 500

/**
 * Every machine's offset from all riders checked on it, their own heights unknown: a mixed model with a rider effect of
 * any size and a spike-and-slab machine effect, by Gibbs sampling (George & McCulloch 1993, from memory). A rider
 * checked on one machine alone says nothing of it. Seeded: the same checks give the same answer.
 */
export function poolResiduals(checks: readonly MachineCheck[], seed = 1): PooledResidual[] {
  const machines = [...new Set(checks.map(({ machine }) => machine))].sort()
  const { precision, information } = machineEvidence(checks, machines)
  const random = createRng(seed)
  const offsets = new Float64Array(machines.length)
  const draws = machines.map(() => new Float64Array(SWEEPS))
  const offCount = machines.map(() => 0)
  for (let sweep = -BURN_IN; sweep < SWEEPS; sweep++)
    for (let m = 0; m < machines.length; m++) {
      // Of the others as they stand: what the checks say of this machine's offset alone.
      let told = information.get(m, 0)
      for (let k = 0; k < machines.length; k++) if (k !== m) told -= precision.get(m, k) * offsets[k]
      const weight = precision.get(m, m)
      // The indicator with the offset integrated out, so that the two never hold each other fast.
      const log = (sd: number, share: number) => {
        const whole = weight + 1 / (sd * sd)
        return Math.log(share / sd) - 0.5 * Math.log(whole) + (told * told) / (2 * whole)
      }
      const odds = Math.exp(log(USUAL_SD_MM, 1 - OFF_SHARE) - log(OFF_SD_MM, OFF_SHARE))
      const isOff = random.uniform() < 1 / (1 + odds)
      const whole = weight + 1 / (isOff ? OFF_SD_MM : USUAL_SD_MM) ** 2
      offsets[m] = told / whole + random.normal() / Math.sqrt(whole)
      if (sweep < 0) continue
      draws[m][sweep] = offsets[m]
      offCount[m] += isOff ? 1 : 0
    }
  return machines.map((machine, m) => {
    const sorted = [...draws[m].sort()]
    const at = (share: number) => sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))]
    return {
      machine,
      mm: sorted.reduce((sum, mm) => sum + mm, 0) / sorted.length,
      fromMm: at(0.025),
      toMm: at(0.975),
      riders: new Set(checks.filter((check) => check.machine === machine).map(({ rider }) => rider)).size,
      offChance: offCount[m] / sorted.length,
    }
  })
}

/**
 * What the checks say of the machines once each rider's own height, of which nothing is known, is integrated out: a
 * height that is right by the marks of a machine that stands lower comes out higher, y = z − o + e.
 */
function machineEvidence(
  checks: readonly MachineCheck[],
  machines: readonly string[],
): Readonly<{ precision: Matrix; information: Matrix }> {
  const index = new Map(machines.map((machine, m) => [machine, m]))
  const precision = Matrix.zeros(machines.length, machines.length)
  const information = Matrix.zeros(machines.length, 1)
  const byRider = new Map<string, MachineCheck[]>()
  for (const check of checks) byRider.set(check.rider, [...(byRider.get(check.rider) ?? []), check])
  for (const own of byRider.values()) {
    const rows = own.map(({ machine, heightMm, sdMm }) => ({
      m: index.get(machine)!,
      heightMm,
      weight: 1 / (sdMm ** 2 + HABIT_SD_MM ** 2),
    }))
    const sum = rows.reduce((total, { weight }) => total + weight, 0)
    const mean = rows.reduce((total, { weight, heightMm }) => total + weight * heightMm, 0) / sum
    for (const a of rows) {
      information.set(a.m, 0, information.get(a.m, 0) - a.weight * (a.heightMm - mean))
      precision.set(a.m, a.m, precision.get(a.m, a.m) + a.weight)
      for (const b of rows) precision.set(a.m, b.m, precision.get(a.m, b.m) - (a.weight * b.weight) / sum)
    }
  }
  return { precision, information }
}
