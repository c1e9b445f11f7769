import type { KeyboardCoordinateGetter } from '@dnd-kit/core'

const WAY: Readonly<Record<string, readonly [x: number, y: number]>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
}

/** What is carried by the keyboard goes from bike to bike: the nearest one in the arrow's direction. */
export const toNextBike: KeyboardCoordinateGetter = (event, { currentCoordinates, context }) => {
  const way = WAY[event.code]
  if (!way) return undefined
  event.preventDefault()
  const from = context.collisionRect
  if (!from) return currentCoordinates
  const middle = (rect: { left: number; top: number; width: number; height: number }) => ({
    x: rect.left + rect.width / 2,
    y: rect.top + rect.height / 2,
  })
  const at = middle(from)
  let best: { x: number; y: number; worth: number } | null = null
  for (const container of context.droppableContainers.getEnabled()) {
    const rect = context.droppableRects.get(container.id)
    if (!rect || container.id === context.over?.id) continue
    const to = middle(rect)
    const ahead = (to.x - at.x) * way[0] + (to.y - at.y) * way[1]
    const aside = Math.abs((to.x - at.x) * way[1]) + Math.abs((to.y - at.y) * way[0])
    if (ahead < 10) continue
    const worth = ahead + 2 * aside
    if (!best || worth < best.worth) best = { ...to, worth }
  }
  if (!best) return currentCoordinates
  // A hair aside: straight up or down the library would only scroll the page, and leave what is carried behind.
  return { x: best.x - from.width / 2 + 1, y: best.y - from.height / 2 + 1 }
}
