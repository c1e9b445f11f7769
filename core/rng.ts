import jstat from 'jstat'
import { uniformFloat64 } from 'pure-rand/distribution/uniformFloat64'
import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus'

const { jStat } = jstat

/** A source of numbers that is wholly decided by its seed. */
export type Rng = Readonly<{ uniform: () => number; normal: () => number }>

/** A small seed leaves the generator's state nearly empty, and its first numbers all alike: they are passed over. */
const WARM_UP = 64

/** Same seed, same numbers, on every machine. `uniform` lies in [0, 1), `normal` has mean 0 and spread 1. */
export function createRng(seed: number): Rng {
  const generator = xoroshiro128plus(seed)
  for (let i = 0; i < WARM_UP; i++) uniformFloat64(generator)
  const uniform = () => uniformFloat64(generator)
  const normal = () => normalQuantile(Math.min(1 - 1e-12, Math.max(1e-12, uniform())))
  return { uniform, normal }
}

/** Chance that a standard normal lies below `x`. */
export const normalCdf = (x: number): number => jStat.normal.cdf(x, 0, 1)

/** The standard normal's value below which lies the chance `p`. */
export const normalQuantile = (p: number): number => jStat.normal.inv(p, 0, 1)
