import { act, renderHook } from '@testing-library/react'
import { HOLES_BIKE } from '@/core/testing/meanRider'
import { USUAL_SHEET } from '@/core/bike/sheet'
import { draftOf } from './typeDraft'
import { useKeptDraft } from './useKeptDraft'

const start = () => draftOf({ bikeType: HOLES_BIKE, sheet: USUAL_SHEET }, 'metric')
const renamed = (name: string) => (draft: ReturnType<typeof start>) => ({ ...draft, name })

afterEach(() => {
  jest.restoreAllMocks()
  localStorage.clear()
})

test('what was typed is there again on a page opened anew; begun anew it is gone', () => {
  const first = renderHook(() => useKeptDraft('sorrel', start))
  act(() => first.result.current.setDraft(renamed('Campion')))
  first.unmount()
  const again = renderHook(() => useKeptDraft('sorrel', start))
  expect([again.result.current.draft.name, again.result.current.found]).toEqual(['Campion', true])
  act(() => again.result.current.anew())
  expect([again.result.current.draft.name, again.result.current.found]).toEqual(['Testwort', false])
})

test.each(['getItem', 'setItem', 'removeItem'] as const)(
  'a device whose storage throws at %s is no obstacle to typing',
  (method) => {
    jest.spyOn(Storage.prototype, method).mockImplementation(() => {
      throw new DOMException('closed', 'SecurityError')
    })
    const { result } = renderHook(() => useKeptDraft('sorrel', start))
    act(() => result.current.setDraft(renamed('Campion')))
    expect(result.current.draft.name).toBe('Campion')
    act(() => result.current.forget())
  },
)
