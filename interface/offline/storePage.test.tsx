import { renderHook } from '@testing-library/react'
import { forgetPages, readSnapshot, saveSnapshot, useServiceWorker } from './storePage'

test('a page still open as its person leaves writes no snapshot any more; the next person’s page does', async () => {
  saveSnapshot('dusk', { notes: ['wrist bent'] })
  expect(readSnapshot('dusk')).toEqual({ notes: ['wrist bent'] })
  await forgetPages()
  // News of the class arrive while the page is on its way to sign-in.
  saveSnapshot('dusk', { notes: ['wrist bent'] })
  expect(JSON.stringify({ ...localStorage })).not.toContain('wrist')

  Object.defineProperty(navigator, 'serviceWorker', { value: { register: async () => undefined }, configurable: true })
  renderHook(() => useServiceWorker('bram-okell'))
  await new Promise((resolve) => setTimeout(resolve))
  saveSnapshot('dusk', { notes: [] })
  expect(readSnapshot('dusk')).toEqual({ notes: [] })
})
