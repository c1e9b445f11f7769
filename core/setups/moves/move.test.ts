import { floorScales } from '../../messages/setups/floorScales'
import { HOLES_BIKE as type } from '../../testing/meanRider'
import { isBeyond, markAt, marksAfter, MAX_STEPS, movableAxes, movedMm } from './move'

const marks = { seatHeight: '8', seatSlide: 'D', barHeight: '6', barSlide: '0' }
const axisAt = (axis: string, label: string) =>
  movableAxes(floorScales(type), { ...marks, [axis]: label }).find((a) => a.axis === axis)!

test('a step leads to the neighbouring mark by position and ends at the scale’s end', () => {
  const height = axisAt('seatHeight', '8')
  expect([markAt(height, 1)?.label, markAt(height, -1)?.label]).toEqual(['9', '7'])
  expect(movedMm(height, '9')).toBeGreaterThan(0)
  expect(movedMm(height, '7')).toBeCloseTo(-movedMm(height, '9'), 6)
  const all = type.axes.seatHeight.scale
  const top = 'marks' in all ? all.marks.reduce((a, b) => (b.mm > a.mm ? b : a)).label : ''
  expect(markAt(axisAt('seatHeight', top), 1)).toBeNull()
  expect(height.positions.length).toBeLessThanOrEqual(2 * MAX_STEPS + 1)
})

test('an axis without a mark, or with an unknown mark, cannot be moved', () => {
  const { seatSlide: _, ...rest } = marks
  expect(movableAxes(floorScales(type), { ...rest, barHeight: 'nowhere' }).map(({ axis }) => axis)).toEqual([
    'seatHeight',
    'barSlide',
  ])
})

test('the self-adjustment marks decide what is asked; without them the length of the step does', () => {
  const height = axisAt('seatHeight', '8')
  expect(isBeyond(height, '9', ['9'])).toBe(false)
  expect(isBeyond(height, '9', [])).toBe(true)
  expect(isBeyond(height, '8', [])).toBe(false)
  for (const { label, mm } of height.positions)
    expect(isBeyond(height, label, undefined)).toBe(
      Math.abs(mm - movedMm(height, '8') - height.positions.find((p) => p.label === '8')!.mm) > 8,
    )
})

test('marks follow later moves, go back with undone ones, and ignore a move from another mark', () => {
  const up = { id: 'a', axis: 'barHeight', from: '6', to: '7' } as const
  const further = { id: 'b', axis: 'barHeight', from: '7', to: '8' } as const
  expect(marksAfter(marks, [], [up, further]).barHeight).toBe('8')
  const read = { ...marks, barHeight: '8' }
  expect(marksAfter(read, [up, further], [up, further])).toEqual(read)
  expect(marksAfter(read, [up, further], [up]).barHeight).toBe('7')
  expect(marksAfter(read, [up, further], []).barHeight).toBe('6')
  expect(marksAfter({ ...marks, barHeight: '3' }, [], [up]).barHeight).toBe('3')
})
