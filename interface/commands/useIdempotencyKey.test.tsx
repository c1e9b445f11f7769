import { act, renderHook } from '@testing-library/react'
import { partId, useIdempotencyKey } from './useIdempotencyKey'

test('a retry of the same content has the same id, also after the page was drawn again', () => {
  const { result, rerender } = renderHook(() => useIdempotencyKey())
  const first = result.current.idFor({ mm: 700, marks: { seatHeight: '8' } })
  rerender()
  expect(result.current.idFor({ mm: 700, marks: { seatHeight: '8' } })).toBe(first)
})

test('what was corrected in between has an id of its own, and so has the same content once it was forgotten', () => {
  const { result } = renderHook(() => useIdempotencyKey())
  const first = result.current.idFor({ mm: 700 })
  const corrected = result.current.idFor({ mm: 701 })
  act(() => result.current.forget())
  const next = result.current.idFor({ mm: 701 })
  expect(new Set([first, corrected, next]).size).toBe(3)
})

test('the parts of one write have ids of their own, the same in a retry', () => {
  const { result } = renderHook(() => useIdempotencyKey())
  const id = result.current.idFor(['a', 'b'])
  const parts = Array.from({ length: 300 }, (_, i) => partId(id, i))
  expect(new Set(parts).size).toBe(300)
  expect(Array.from({ length: 300 }, (_, i) => partId(result.current.idFor(['a', 'b']), i))).toEqual(parts)
  for (const part of parts) expect(part).toMatch(/^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/)
})
