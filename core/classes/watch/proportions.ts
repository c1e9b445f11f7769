/** So many of so many. */
export type Count = Readonly<{ changed: number; of: number }>

/** Of the normal distribution, two-sided 95 % (its table). */
const Z95 = 1.959963984540054

/** Wilson's score interval of a share (Wilson 1927), at 95 % by default; the whole range for no observations. */
export function wilson({ changed, of }: Count, z = Z95): Readonly<{ low: number; high: number }> {
  if (of === 0) return { low: 0, high: 1 }
  const share = changed / of
  const z2 = z * z
  const middle = (share + z2 / (2 * of)) / (1 + z2 / of)
  const half = (z * Math.sqrt((share * (1 - share)) / of + z2 / (4 * of * of))) / (1 + z2 / of)
  return { low: Math.max(0, middle - half), high: Math.min(1, middle + half) }
}

/**
 * The difference of two independent shares, first minus second, with its 95 % interval (or that of `z`) by Newcombe's
 * hybrid score method (Newcombe 1998, Statistics in Medicine 17:873–890, his method 10).
 */
export function shareDifference(
  first: Count,
  second: Count,
  z = Z95,
): Readonly<{ difference: number; low: number; high: number }> {
  const share = ({ changed, of }: Count) => (of === 0 ? 0.5 : changed / of)
  const [p1, p2] = [share(first), share(second)]
  const [w1, w2] = [wilson(first, z), wilson(second, z)]
  const difference = p1 - p2
  return {
    difference,
    low: difference - Math.hypot(p1 - w1.low, w2.high - p2),
    high: difference + Math.hypot(w1.high - p1, p2 - w2.low),
  }
}
