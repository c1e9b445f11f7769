import { eyePairs, type WrittenRow } from './eyePairs'

const at = { seatHeight: '7', seatSlide: 'D' }
const look = (setupId: string, by: string, more: object = {}): WrittenRow => ({
  setupId,
  by,
  row: { kind: 'kneeByEye', seen: 'slightBend', at, ...more },
})
const gonio = (setupId: string, deg: number, more: object = {}): WrittenRow => ({
  setupId,
  by: 'somebody',
  row: { kind: 'kneeAngle', deg, by: 'goniometer', at, ...more },
})

test('a look pairs with an instrument in the same set-up at the same place, whoever measured', () => {
  const { knee } = eyePairs([look('a', 'me'), gonio('a', 29), look('b', 'me'), gonio('c', 40)], 'me')
  expect(knee).toEqual([{ seen: 'slightBend', read: 29, readSd: 2 }])
})

test('another place, another leg, a heel, a turning leg and another’s look do not pair', () => {
  const place = { at: { seatHeight: '8', seatSlide: 'D' } }
  expect(eyePairs([look('a', 'me'), gonio('a', 29, place)], 'me').knee).toEqual([])
  expect(eyePairs([look('a', 'me', { side: 'left' }), gonio('a', 29, { side: 'right' })], 'me').knee).toEqual([])
  expect(eyePairs([look('a', 'me'), gonio('a', 29, { foot: 'heel' })], 'me').knee).toEqual([])
  expect(eyePairs([look('a', 'me'), gonio('a', 29, { moving: true })], 'me').knee).toEqual([])
  expect(eyePairs([look('a', 'you'), gonio('a', 29)], 'me').knee).toEqual([])
})

test('a plumb line from the middle of the kneecap is carried to its front', () => {
  const rows: WrittenRow[] = [
    { setupId: 'a', by: 'me', row: { kind: 'plumbByEye', seen: 'overAxle', at } },
    { setupId: 'a', by: 'me', row: { kind: 'plumb', mm: 2, at } },
  ]
  expect(eyePairs(rows, 'me', { plumbFrom: 'middle' }).plumb[0].read).toBe(12)
  expect(eyePairs(rows, 'me').plumb[0].read).toBe(2)
})
