import jstat from 'jstat'
import { uniformFloat64 } from 'pure-rand/distribution/uniformFloat64'
import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus'

const { jStat } = jstat

/** A source of numbers that is wholly decided by its seed. */
export type Rng = Readonly<{ uniform: () => number; normal: () => number }>

/** A small seed leaves the generator's state nearly empty, and its first numbers all alike: they are passed over. */
const WARM_UP = 64

/**
 * Same seed, same numbers, on every machine. `uniform` lies in [0, 1), `normal` has mean 0 and standard deviation 1.
 */
export function createRng(seed: number): Rng {
  const generator = xoroshiro128plus(seed)
  for (let i = 0; i < WARM_UP; i++) uniformFloat64(generator)
  const uniform = () => uniformFloat64(generator)
  const normal = () => normalQuantile(Math.min(1 - 1e-12, Math.max(1e-12, uniform())))
  return { uniform, normal }
}

/** Chance that a standard normal lies below `x`: a cubic between the library's own values and slopes, off by 1e-11. */
export function normalCdf(x: number): number {
  if (x <= -TABLE_END) return 0
  if (x >= TABLE_END) return 1
  const at = (x + TABLE_END) * STEPS_A_UNIT
  const i = Math.floor(at)
  const t = at - i
  // The cubic through both values with both slopes (Hermite).
  const p = SLOPE[i]
  const q = SLOPE[i + 1]
  const rise = CDF[i + 1] - CDF[i]
  return CDF[i] + t * (p + t * (3 * rise - 2 * p - q + t * (p + q - 2 * rise)))
}
/** Beyond so many standard deviations nothing lies but 6e-16. */
const TABLE_END = 8
const STEPS_A_UNIT = 128
const TABLE = Array.from({ length: 2 * TABLE_END * STEPS_A_UNIT + 2 }, (_, i) => i / STEPS_A_UNIT - TABLE_END)
const CDF = Float64Array.from(TABLE, (x) => jStat.normal.cdf(x, 0, 1))
const SLOPE = Float64Array.from(TABLE, (x) => jStat.normal.pdf(x, 0, 1) / STEPS_A_UNIT)

/** The standard normal's value below which lies the chance `p`. */
export const normalQuantile = (p: number): number => jStat.normal.inv(p, 0, 1)
