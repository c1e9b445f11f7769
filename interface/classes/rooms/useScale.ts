import { useEffect, useRef, useState } from 'react'
import type { RoomPlan } from '@/core/classes/planning/roomPlan'

/** Pixels a metre, so that the whole room fits the frame. */
export function useScale(plan: RoomPlan): readonly [number, React.RefObject<HTMLDivElement | null>] {
  const frame = useRef<HTMLDivElement>(null)
  const [size, setSize] = useState({ width: 800, height: 600 })
  useEffect(() => {
    const element = frame.current
    if (!element) return
    const measure = () => {
      const { width } = element.getBoundingClientRect()
      setSize({ width, height: Math.max(420, window.innerHeight - 190) })
    }
    measure()
    const observer = new ResizeObserver(measure)
    observer.observe(element)
    return () => observer.disconnect()
  }, [])
  const scale = Math.max(24, Math.min(size.width / plan.widthM, size.height / plan.depthM))
  return [scale, frame]
}
