import { act, fireEvent, render, screen } from '@testing-library/react'
import { findMembers } from './findMembers'
import { MembersView } from './MembersView'

const router = { push: jest.fn(), replace: jest.fn() }
jest.mock('next/navigation', () => ({ useRouter: () => router }))
jest.mock('../../commands/send', () => ({}))
jest.mock('./findMembers', () => ({ findMembers: jest.fn() }))

beforeEach(() => {
  jest.useFakeTimers()
  router.push.mockClear()
  router.replace.mockClear()
})
afterEach(() => jest.useRealTimers())

const list = () =>
  render(
    <MembersView
      search={{ typed: '', withoutNumbers: false, page: 1 }}
      pages={{ total: 1, size: 40 }}
      counts={{ all: 1, withoutNumbers: 0 }}
      mayImport={false}
      mayBringIn={false}
      members={[{ id: 'm0', name: 'Someone Else', openSetupId: null, numbers: null }]}
    />,
  )

test(
  'Enter right after typing opens the first of that name, and the list requested late does ' + 'not take the page away',
  async () => {
    let answer: (found: { id: string; name: string }[]) => void = () => undefined
    jest.mocked(findMembers).mockImplementation(() => new Promise((resolve) => (answer = resolve)))
    list()
    const field = screen.getByLabelText('Find by name')
    fireEvent.change(field, { target: { value: 'Wenna' } })
    fireEvent.keyDown(field, { key: 'Enter', code: 'Enter' })
    await act(async () => void jest.advanceTimersByTime(1000))
    await act(async () => answer([{ id: 'm1', name: 'Wenna Tarrow' }]))
    expect(router.push).toHaveBeenCalledWith('/riders/m1')
    expect(router.replace).not.toHaveBeenCalled()
  },
)

test('a pause in typing requests the list', async () => {
  list()
  fireEvent.change(screen.getByLabelText('Find by name'), { target: { value: 'Wenna' } })
  await act(async () => void jest.advanceTimersByTime(1000))
  expect(router.replace).toHaveBeenCalledWith('/members?find=Wenna', { scroll: false })
})
