import { closestCenter, pointerWithin, type Announcements, type CollisionDetection } from '@dnd-kit/core'

/** Announcements to screen readers while a rider is carried. */
export const spokenMoves: Announcements = {
  onDragStart: ({ active }) => `${active.data.current?.name} picked up.`,
  onDragOver: ({ active, over }) =>
    over ? `${active.data.current?.name} over bike ${over.data.current?.number}.` : 'Over no bike.',
  onDragEnd: ({ active, over }) =>
    over ? `${active.data.current?.name} set down on bike ${over.data.current?.number}.` : 'Set down where it was.',
  onDragCancel: ({ active }) => `${active.data.current?.name} stays.`,
}

/** The keyboard carries from bike to bike; a hand drops where the pointer is. */
export const dropsOn: CollisionDetection = (args) => {
  const under = pointerWithin(args)
  return under.length > 0 || args.pointerCoordinates ? under : closestCenter(args)
}
