import { toNextBike } from './floorKeys'

/** Two rows of three tiles, 100 wide and 60 high, with 20 between. */
const RECTS = Object.fromEntries(
  [0, 1].flatMap((row) =>
    [0, 1, 2].map((column) => [
      `r${row}c${column}`,
      { left: column * 120, top: row * 80, width: 100, height: 60, right: column * 120 + 100, bottom: row * 80 + 60 },
    ]),
  ),
)

/** Where what is carried from a tile goes at a key. */
function press(code: string, from: string) {
  const event = { code, preventDefault: jest.fn() }
  const context = {
    collisionRect: RECTS[from],
    over: { id: from },
    droppableRects: new Map(Object.entries(RECTS)),
    droppableContainers: { getEnabled: () => Object.keys(RECTS).map((id) => ({ id })) },
  }
  const currentCoordinates = { x: RECTS[from].left, y: RECTS[from].top }
  const to = toNextBike(event as never, { currentCoordinates, context, active: 'x' } as never)
  const tile = Object.entries(RECTS).find(
    ([, { left, top }]) => to && Math.abs(to.x - left) < 5 && Math.abs(to.y - top) < 5,
  )
  return { tile: tile?.[0], handled: event.preventDefault.mock.calls.length > 0 }
}

test('arrows carry to the nearest bike in their direction', () => {
  expect(press('ArrowRight', 'r0c0')).toEqual({ tile: 'r0c1', handled: true })
  expect(press('ArrowDown', 'r0c1').tile).toBe('r1c1')
  expect(press('ArrowLeft', 'r1c2').tile).toBe('r1c1')
  expect(press('ArrowUp', 'r1c0').tile).toBe('r0c0')
})

test('at the edge what is carried stays; other keys are not the floor’s', () => {
  expect(press('ArrowUp', 'r0c1').tile).toBe('r0c1')
  expect(press('KeyA', 'r0c1')).toEqual({ tile: undefined, handled: false })
})
