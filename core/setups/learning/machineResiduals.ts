import { Matrix } from 'ml-matrix'
import { createRng } from '../../base/rng'

/** A rider checked on a machine: the right height by its marks, mm, and its standard deviation. */
export type MachineCheck = Readonly<{
  machine: string
  rider: string
  heightMm: number
  sdMm: number
  /** The machine's type, and the observer of a check by eye: each has an error of its own. */
  type?: string
  eye?: string
}>

/** Offset of a machine, estimated from the riders checked on it. */
export type PooledResidual = Readonly<{
  machine: string
  /** Seat height relative to the marks, mm, minus is lower; with the central 95 % interval. */
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
/** Standard deviations of a type's heights after calibration and of observers, mm; assumptions. */
const TYPE_SD_MM = 4
const EYE_SD_MM = 8
/** A machine off by as likely as this is named to the manager. */
export const REPORT_PROBABILITY = 0.8

const SWEEPS = 3000
const BURN_IN = 500

/**
 * The offset of every machine from the riders checked on it: a mixed model with a flat rider effect, small effects of
 * types and observers, and a spike-and-slab machine effect, by Gibbs sampling (George & McCulloch 1993, from memory). A
 * rider checked on one machine only carries no information about it. Seeded: the same checks give the same answer.
 */
export function poolResiduals(checks: readonly MachineCheck[], seed = 1): PooledResidual[] {
  const machines = namesOf(checks, ({ machine }) => machine)
  const types = namesOf(checks, ({ type }) => type)
  const eyes = namesOf(checks, ({ eye }) => eye)
  const { precision, information } = effectEvidence(checks, { machines, types, eyes })
  const strays = [...types.map(() => TYPE_SD_MM), ...eyes.map(() => EYE_SD_MM)]
  const random = createRng(seed)
  const effects = new Float64Array(machines.length + strays.length)
  const draws = machines.map(() => new Float64Array(SWEEPS))
  const offCount = machines.map(() => 0)
  for (let sweep = -BURN_IN; sweep < SWEEPS; sweep++)
    for (let k = 0; k < effects.length; k++) {
      // Conditional on the other effects: the evidence for this one alone.
      let axisPrecision = information[k]
      for (let other = 0; other < effects.length; other++)
        if (other !== k) axisPrecision -= precision.get(k, other) * effects[other]
      const weight = precision.get(k, k)
      // The indicator with the offset integrated out (collapsed step), so that the chain mixes.
      const log = (sd: number, share: number) => {
        const whole = weight + 1 / (sd * sd)
        return Math.log(share / sd) - 0.5 * Math.log(whole) + (axisPrecision * axisPrecision) / (2 * whole)
      }
      const isMachine = k < machines.length
      const odds = isMachine ? Math.exp(log(USUAL_SD_MM, 1 - OFF_SHARE) - log(OFF_SD_MM, OFF_SHARE)) : 0
      const isOff = isMachine && random.uniform() < 1 / (1 + odds)
      const sdMm = isMachine ? (isOff ? OFF_SD_MM : USUAL_SD_MM) : strays[k - machines.length]
      const whole = weight + 1 / sdMm ** 2
      effects[k] = axisPrecision / whole + random.normal() / Math.sqrt(whole)
      if (!isMachine || sweep < 0) continue
      draws[k][sweep] = effects[k]
      offCount[k] += isOff ? 1 : 0
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

const namesOf = (checks: readonly MachineCheck[], of: (check: MachineCheck) => string | undefined): string[] =>
  [...new Set(checks.flatMap((check) => of(check) ?? []))].sort()

type Effects = Readonly<{ machines: readonly string[]; types: readonly string[]; eyes: readonly string[] }>

/**
 * Precision and information of machines, types and observers with each rider's height (flat prior) integrated out. A
 * low machine needs a higher mark: y = z − machine + type + observer + e.
 */
function effectEvidence(
  checks: readonly MachineCheck[],
  { machines, types, eyes }: Effects,
): Readonly<{ precision: Matrix; information: Float64Array }> {
  const places = (names: readonly string[], from: number) => new Map(names.map((name, i) => [name, from + i]))
  const machineAt = places(machines, 0)
  const typeAt = places(types, machines.length)
  const eyeAt = places(eyes, machines.length + types.length)
  const count = machines.length + types.length + eyes.length
  const precision = Matrix.zeros(count, count)
  const information = new Float64Array(count)
  const byRider = new Map<string, MachineCheck[]>()
  for (const check of checks) byRider.set(check.rider, [...(byRider.get(check.rider) ?? []), check])
  for (const own of byRider.values()) {
    const rows = own.map(({ machine, type, eye, heightMm, sdMm }) => ({
      signs: [
        { at: machineAt.get(machine)!, sign: -1 },
        ...(type === undefined ? [] : [{ at: typeAt.get(type)!, sign: 1 }]),
        ...(eye === undefined ? [] : [{ at: eyeAt.get(eye)!, sign: 1 }]),
      ],
      heightMm,
      weight: 1 / (sdMm ** 2 + HABIT_SD_MM ** 2),
    }))
    const sum = rows.reduce((total, { weight }) => total + weight, 0)
    const mean = rows.reduce((total, { weight, heightMm }) => total + weight * heightMm, 0) / sum
    const whole = new Map<number, number>()
    for (const { signs, weight, heightMm } of rows)
      for (const a of signs) {
        whole.set(a.at, (whole.get(a.at) ?? 0) + a.sign * weight)
        information[a.at] += a.sign * weight * (heightMm - mean)
        for (const b of signs) precision.set(a.at, b.at, precision.get(a.at, b.at) + a.sign * b.sign * weight)
      }
    for (const [a, ofA] of whole)
      for (const [b, ofB] of whole) precision.set(a, b, precision.get(a, b) - (ofA * ofB) / sum)
  }
  return { precision, information }
}
