/** @jest-environment jsdom */
import { act, renderHook } from '@testing-library/react'
import react from 'react'

type Module = typeof import('./useTabState')
/** The module as a reloaded page has it. */
const openAnew = (): Module => {
  let page: Module | undefined
  jest.isolateModules(() => {
    jest.doMock('react', () => react)
    page = jest.requireActual<Module>('./useTabState')
  })
  return page!
}
const shown = ({ useTabState }: Module, key = 'bike') => renderHook(() => useTabState<{ id: string }>(key))

afterEach(() => {
  jest.useRealTimers()
  sessionStorage.clear()
})

test('a page reloaded within a minute has the value; one reloaded later, or a damaged value, gives none', () => {
  jest.useFakeTimers()
  const first = shown(openAnew())
  act(() => first.result.current[1]({ id: 'seven' }))
  expect(first.result.current[0]).toEqual({ id: 'seven' })
  jest.advanceTimersByTime(50_000)
  expect(shown(openAnew()).result.current[0]).toEqual({ id: 'seven' })
  jest.advanceTimersByTime(20_000)
  expect(shown(openAnew()).result.current[0]).toBeNull()
  sessionStorage.setItem('bike', '{"json":')
  expect(shown(openAnew()).result.current[0]).toBeNull()
})

test('a removed value stays away; keys do not meet', () => {
  const page = openAnew()
  const [bike, other] = [shown(page), shown(page, 'other')]
  act(() => bike.result.current[1]({ id: 'seven' }))
  expect(other.result.current[0]).toBeNull()
  act(() => bike.result.current[1](null))
  expect([bike.result.current[0], shown(openAnew()).result.current[0]]).toEqual([null, null])
})
