import type { Announcements } from '@dnd-kit/core'
import type { Block } from '@/core/classes/plan/blocks'

/** Announcements to screen readers while a block is moved: its name, and its place of all. */
export function spokenBlocks(blocks: readonly Block[]): Announcements {
  const placeOf = (id: string | number) => blocks.findIndex((block) => block.id === id) + 1
  const named = (id: string | number) => blocks[placeOf(id) - 1]?.name || `Block ${placeOf(id)}`
  return {
    onDragStart: ({ active }) => `${named(active.id)} picked up, place ${placeOf(active.id)} of ${blocks.length}.`,
    onDragOver: ({ active, over }) =>
      over ? `${named(active.id)} over place ${placeOf(over.id)}.` : `${named(active.id)} over no place.`,
    onDragEnd: ({ active, over }) =>
      over ? `${named(active.id)} set down at place ${placeOf(over.id)}.` : 'Set down where it was.',
    onDragCancel: ({ active }) => `${named(active.id)} stays.`,
  }
}
