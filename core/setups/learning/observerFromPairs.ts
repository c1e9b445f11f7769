import type { Observer } from '../../riders/evidence/definition/defineKind'
import { KNEE_BY_EYE_DEG } from '../../riders/evidence/kinds/onBike/kneeByEye'
import { PLUMB_BY_EYE_MM } from '../../riders/evidence/kinds/onBike/plumbByEye'
import { intervalProbability, type Interval } from '../../riders/inference/likelihood'
import { MEASUREMENT_SD } from '../../base/measurementNoise'

/** What an eye saw, and what an instrument read with the saddle at the same place: degrees, or millimetres. */
export type EyePair<Word extends string> = Readonly<{ seen: Word; read: number; readSd: number }>

/**
 * Error of an eye, read minus true: bias, standard deviation, and standard error of the bias, with the number of pairs.
 */
export type EyeError = Readonly<{ bias: number; sd: number; biasSd: number; pairs: number }>

type Prior = Readonly<{ biasSd: number; sd: number; logSdSd: number; step: number; reach: number }>

/** Prior before any pair: bias 0 and the usual standard deviation (model notes). The widths of both are assumptions. */
const KNEE: Prior = { biasSd: 4, sd: MEASUREMENT_SD.kneeByEyeDeg, logSdSd: 0.3, step: 0.25, reach: 16 }
const PLUMB: Prior = { biasSd: 8, sd: MEASUREMENT_SD.plumbByEyeMm, logSdSd: 0.3, step: 0.5, reach: 32 }

/** Spreads looked at, as shares of the usual one. */
const SD_SHARES = Array.from({ length: 13 }, (_, k) => 0.5 * Math.pow(4, k / 12))

/** How one instructor's eye reads knees, from looks beside a goniometer or gauge. With few pairs near 0 and 6°. */
export const kneeEyeError = (pairs: readonly EyePair<keyof typeof KNEE_BY_EYE_DEG>[]): EyeError =>
  eyeError(pairs, KNEE_BY_EYE_DEG, KNEE)

/** The same for the knee over the pedal, beside a plumb line. */
export const plumbEyeError = (pairs: readonly EyePair<keyof typeof PLUMB_BY_EYE_MM>[]): EyeError =>
  eyeError(pairs, PLUMB_BY_EYE_MM, PLUMB)

/** The observer of the wire format. */
export const observerFrom = (knee: EyeError, plumb: EyeError): Observer => ({
  eye: { kneeBiasDeg: knee.bias, kneeSdDeg: knee.sd, plumbBiasMm: plumb.bias, plumbSdMm: plumb.sd },
})

/**
 * Posterior mean of bias and standard deviation on a grid: an ordered probit of the words on what the instrument read,
 * whose own error adds to the eye's.
 */
function eyeError<Word extends string>(
  pairs: readonly EyePair<Word>[],
  words: Readonly<Record<Word, Interval>>,
  { biasSd, sd, logSdSd, step, reach }: Prior,
): EyeError {
  const grid = SD_SHARES.flatMap((share) =>
    Array.from({ length: Math.round((2 * reach) / step) + 1 }, (_, k) => ({ bias: -reach + k * step, sd: share * sd })),
  )
  const logs = grid.map((at) => {
    const prior = -0.5 * (at.bias / biasSd) ** 2 - 0.5 * (Math.log(at.sd / sd) / logSdSd) ** 2
    return pairs.reduce((sum, { seen, read, readSd }) => {
      const p = intervalProbability(words[seen], read + at.bias, Math.hypot(at.sd, readSd))
      return sum + Math.log(Math.max(SLIP_CHANCE, p))
    }, prior)
  })
  const top = Math.max(...logs)
  const weights = logs.map((log) => Math.exp(log - top))
  const total = weights.reduce((a, b) => a + b, 0)
  const mean = (of: (at: (typeof grid)[number]) => number) =>
    grid.reduce((sum, at, k) => sum + weights[k] * of(at), 0) / total
  const bias = mean((at) => at.bias)
  return {
    bias,
    sd: mean((at) => at.sd),
    biasSd: Math.sqrt(mean((at) => (at.bias - bias) ** 2)),
    pairs: pairs.length,
  }
}

/** A word tapped by mistake: no pair may count for more than this. */
const SLIP_CHANCE = 0.01
