import { useState } from 'react'

/** Returns the value of an earlier render while `isSame` is true, so that dependent computations do not repeat. */
export function useStable<T>(value: T, isSame: (before: T, now: T) => boolean): T {
  const [stable, setStable] = useState(value)
  if (stable === value || isSame(stable, value)) return stable
  setStable(value)
  return value
}
