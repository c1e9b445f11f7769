import { act, renderHook, waitFor } from '@testing-library/react'
import type { Member } from '@/server/riders/members/members'
import { useMemberSearch } from './useMemberSearch'

const answers = new Map<string, (members: Member[]) => void>()
jest.mock('./findMembers', () => ({
  findMembers: (typed: string) => new Promise<Member[]>((resolve) => answers.set(typed, resolve)),
}))
const member = (name: string): Member => ({ id: name, name }) as Member
const ALL = ['Ana Gull', 'Bo Zoë Fell', 'Bodil Marr'].map(member)

test('what no longer fits goes at once, and only the latest question is fresh', async () => {
  const { result, rerender } = renderHook(({ typed }) => useMemberSearch(typed), { initialProps: { typed: '' } })
  expect(result.current).toEqual({ found: [], isFresh: false, failed: false })
  await waitFor(() => expect(answers.has('')).toBe(true))
  act(() => answers.get('')!(ALL))
  await waitFor(() => expect(result.current).toEqual({ found: ALL, isFresh: true, failed: false }))

  rerender({ typed: 'zoe bo' })
  expect(result.current).toEqual({ found: [ALL[1]], isFresh: false, failed: false })
  await waitFor(() => expect(answers.has('zoe bo')).toBe(true))
  rerender({ typed: 'zoe bod' })
  await waitFor(() => expect(answers.has('zoe bod')).toBe(true))
  act(() => answers.get('zoe bod')!([]))
  await waitFor(() => expect(result.current).toEqual({ found: [], isFresh: true, failed: false }))
  // An answer that comes late changes nothing.
  await act(async () => answers.get('zoe bo')!([ALL[1]]))
  expect(result.current).toEqual({ found: [], isFresh: true, failed: false })
})
