import { useEffect, useRef, useState } from 'react'

const GLIDE_MS = 320

/** Follows a value made of nested numbers: each change is glided to, except for those who ask for less motion. */
export function useGliding<T>(wanted: T): T {
  const [shown, setShown] = useState(wanted)
  const last = useRef(wanted)
  useEffect(() => {
    const from = last.current
    if (from === wanted) return
    const still = matchMedia('(prefers-reduced-motion: reduce)').matches
    const began = performance.now()
    let frame = requestAnimationFrame(function step(now) {
      const share = still ? 1 : Math.min(1, (now - began) / GLIDE_MS)
      const eased = 1 - (1 - share) ** 3
      last.current = share === 1 ? wanted : (blend(from, wanted, eased) as T)
      setShown(last.current)
      if (share < 1) frame = requestAnimationFrame(step)
    })
    return () => cancelAnimationFrame(frame)
  }, [wanted])
  return shown
}

/** Numbers in between; anything of another shape is taken as wanted. */
export function blend(from: unknown, to: unknown, share: number): unknown {
  if (typeof from === 'number' && typeof to === 'number') return from + (to - from) * share
  if (Array.isArray(from) && Array.isArray(to) && from.length === to.length)
    return to.map((value, i) => blend(from[i], value, share))
  if (from && to && typeof from === 'object' && typeof to === 'object') {
    return Object.fromEntries(
      Object.entries(to).map(([key, value]) => [
        key,
        key in from ? blend((from as Record<string, unknown>)[key], value, share) : value,
      ]),
    )
  }
  return to
}
