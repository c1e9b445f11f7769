import { deliveredSince, recordDelivery } from './lastDelivery'

afterEach(() => {
  jest.restoreAllMocks()
  localStorage.clear()
})

test('a delivery counts for whatever began before it or with it, not for what began after', () => {
  expect(deliveredSince(localStorage, 0)).toBe(false)
  recordDelivery(localStorage, 1000)
  expect([999, 1000, 1001].map((since) => deliveredSince(localStorage, since))).toEqual([true, true, false])
  recordDelivery(localStorage, 2000)
  expect(deliveredSince(localStorage, 1001)).toBe(true)
})

test('a device without storage, or one that refuses, hinders nothing', () => {
  recordDelivery(undefined, 1000)
  expect(deliveredSince(undefined, 0)).toBe(false)
  jest.spyOn(Storage.prototype, 'setItem').mockImplementation(() => {
    throw new DOMException('full', 'QuotaExceededError')
  })
  expect(() => recordDelivery(localStorage, 1000)).not.toThrow()
  expect(deliveredSince(localStorage, 0)).toBe(false)
})
