import { interpolateObject } from 'd3-interpolate'
import { useEffect, useRef, useState } from 'react'

const GLIDE_MS = 320

/** Follows a value made of nested numbers: each change is animated, except with reduced motion. */
export function useGliding<T extends object>(target: T): T {
  const [shown, setShown] = useState(target)
  const last = useRef(target)
  useEffect(() => {
    const from = last.current
    if (from === target) return
    const still = matchMedia('(prefers-reduced-motion: reduce)').matches
    const began = performance.now()
    const between = interpolateObject(from, target)
    let frame = requestAnimationFrame(function step(now) {
      const share = still ? 1 : Math.min(1, (now - began) / GLIDE_MS)
      const eased = 1 - (1 - share) ** 3
      // The interpolator hands out one object that it changes; what is drawn is a copy.
      last.current = share === 1 ? target : structuredClone(between(eased))
      setShown(last.current)
      if (share < 1) frame = requestAnimationFrame(step)
    })
    return () => cancelAnimationFrame(frame)
  }, [target])
  return shown
}
