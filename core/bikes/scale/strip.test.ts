import { HOLES_BIKE } from '../../testing/meanRider'
import { stripOf } from './strip'

const { seatHeight, seatSlide, barSlide } = HOLES_BIKE.axes

test('marks lie along the strip in their printed order, from one end to the other', () => {
  const { ticks, setAt } = stripOf(seatHeight.scale, '8')
  expect(ticks.map(({ at }) => at)).toEqual(Array.from({ length: 15 }, (_, i) => i / 14))
  expect(setAt).toBeCloseTo(0.5, 12)
})

test('of many labels some are written, the set one always and none right beside it', () => {
  const { ticks } = stripOf(seatHeight.scale, '8')
  const written = ticks.filter((tick) => tick.written).map(({ label }) => label)
  expect(written).toContain('8')
  expect(written.filter((label) => label === '7' || label === '9')).toEqual([])
  expect(written.length).toBeLessThanOrEqual(11)
  expect(stripOf(seatSlide.scale, 'C').ticks.every(({ written: all }) => all)).toBe(true)
})

test('half marks are ticks; one that is set is written', () => {
  const { ticks } = stripOf(barSlide!.scale, '-1.5')
  expect(ticks.find(({ label }) => label === '-1.5')).toMatchObject({ written: true, half: true })
  expect(ticks.filter(({ half, written }) => half && written)).toHaveLength(1)
  expect(stripOf(barSlide!.scale, undefined).setAt).toBeNull()
})
