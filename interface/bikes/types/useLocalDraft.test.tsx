import { act, renderHook } from '@testing-library/react'
import { HOLES_BIKE } from '@/core/testing/meanRider'
import { DEFAULT_EQUIPMENT } from '@/core/bikes/bike/equipment'
import { draftFromDocument } from './typeDraft'
import { useLocalDraft } from './useLocalDraft'

const start = () => draftFromDocument({ bikeType: HOLES_BIKE, equipment: DEFAULT_EQUIPMENT }, 'metric')
const renamed = (name: string) => (draft: ReturnType<typeof start>) => ({ ...draft, name })

afterEach(() => {
  jest.restoreAllMocks()
  localStorage.clear()
})

test('what was typed is there again on a page opened again; started again it is gone', () => {
  const first = renderHook(() => useLocalDraft('sorrel', start))
  act(() => first.result.current.setDraft(renamed('Campion')))
  first.unmount()
  const again = renderHook(() => useLocalDraft('sorrel', start))
  expect([again.result.current.draft.name, again.result.current.found]).toEqual(['Campion', true])
  act(() => again.result.current.discard())
  expect([again.result.current.draft.name, again.result.current.found]).toEqual(['Testwort', false])
})

test.each(['getItem', 'setItem', 'removeItem'] as const)(
  'a device whose storage throws at %s is no obstacle to typing',
  (method) => {
    jest.spyOn(Storage.prototype, method).mockImplementation(() => {
      throw new DOMException('closed', 'SecurityError')
    })
    const { result } = renderHook(() => useLocalDraft('sorrel', start))
    act(() => result.current.setDraft(renamed('Campion')))
    expect(result.current.draft.name).toBe('Campion')
    act(() => result.current.forget())
  },
)

test('a draft that an earlier version stored has the defaults of a new type for fields it lacked', () => {
  localStorage.setItem('type-draft-sorrel', JSON.stringify({ ...start(), grips: undefined }))
  expect(renderHook(() => useLocalDraft('sorrel', start)).result.current.draft.grips).toEqual([])
})
