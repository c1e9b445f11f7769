import { matches } from './search'

test('every word typed begins some word of the name; accents, case and hyphens do not count', () => {
  expect(matches('Tove Kestrand', 'kes to')).toBe(true)
  expect(matches('Zoë Marsh-Øye', 'zoe')).toBe(true)
  expect(matches('Fenella Ostrom-Whitlocke', 'whit')).toBe(true)
  expect(matches('Tove Kestrand', 'bram')).toBe(false)
  expect(matches('Tove Kestrand', '')).toBe(true)
})
