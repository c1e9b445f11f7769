import type { Block } from './blocks'
import { reminderAt } from './reminder'

const block = (minutes: number, more: Partial<Block> = {}): Block => ({
  id: `b${minutes}`,
  name: '',
  minutes,
  rpm: 90,
  posture: 'seated',
  hands: 1,
  effort: 'steady',
  spine: 'long',
  ...more,
})
const due = (blocks: readonly Block[]) =>
  Array.from({ length: 40 }, (_, minute) => [minute, reminderAt(blocks, minute)] as const).filter(([, what]) => what)

test('every five minutes at one place the hands go elsewhere, every ten in the saddle a short break', () => {
  expect(due([block(22)])).toEqual([
    [5, 'hands'],
    [10, 'sitUp'],
    [15, 'hands'],
    [20, 'sitUp'],
  ])
})

test('another hand position starts again; standing and sitting up are a break', () => {
  expect(due([block(4), block(4, { hands: 2 }), block(4, { hands: 1 })])).toEqual([[10, 'sitUp']])
  expect(due([block(8), block(2, { posture: 'standing', hands: 2 }), block(8)])).toEqual([
    [5, 'hands'],
    [15, 'hands'],
  ])
})

test('no plan, and after it, nothing', () => {
  expect(due([])).toEqual([])
  expect(reminderAt([block(5)], 5)).toBeNull()
  expect(reminderAt([block(20)], -1)).toBeNull()
})
