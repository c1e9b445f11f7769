import { useState } from 'react'

/** The value of an earlier render for as long as `isSame` holds, so that what is computed from it is not repeated. */
export function useStable<T>(value: T, isSame: (before: T, now: T) => boolean): T {
  const [stable, setStable] = useState(value)
  if (stable === value || isSame(stable, value)) return stable
  setStable(value)
  return value
}
