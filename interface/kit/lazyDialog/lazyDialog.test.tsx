import { act, render, screen } from '@testing-library/react'
import { lazyDialog } from './lazyDialog'

type Props = Readonly<{ open: boolean; close: () => void }>
const Dialog = ({ open }: Props) => (open ? <p>the dialog</p> : null)
const noClose = () => undefined
const settle = () => act(async () => void (await Promise.resolve()))

test('nothing is fetched before it is due; opened, it is there, and stays for the next time', async () => {
  jest.useFakeTimers()
  const load = jest.fn(() => Promise.resolve({ default: Dialog }))
  const Part = lazyDialog(load)
  const { rerender } = render(<Part open={false} close={noClose} />)
  expect(load).not.toHaveBeenCalled()
  rerender(<Part open close={noClose} />)
  await settle()
  expect(screen.getByText('the dialog')).toBeTruthy()
  rerender(<Part open={false} close={noClose} />)
  rerender(<Part open close={noClose} />)
  expect(load).toHaveBeenCalledTimes(1)
  jest.useRealTimers()
})

test('unopened it is fetched automatically once the page is quiet', async () => {
  jest.useFakeTimers()
  const load = jest.fn(() => Promise.resolve({ default: Dialog }))
  const Part = lazyDialog(load)
  render(<Part open={false} close={noClose} />)
  act(() => void jest.advanceTimersByTime(20_000))
  await settle()
  expect(load).toHaveBeenCalledTimes(1)
  jest.useRealTimers()
})

test('without network the page goes on: the failure is shown, and it is tried again', async () => {
  const load = jest.fn<Promise<{ default: typeof Dialog }>, []>(() => Promise.reject(new Error('no network')))
  const Part = lazyDialog(load)
  const { rerender } = render(<Part open close={noClose} />)
  await settle()
  expect(screen.getByRole('alert').textContent).toContain('there is no network')
  load.mockImplementation(() => Promise.resolve({ default: Dialog }))
  rerender(<Part open={false} close={noClose} />)
  expect(screen.queryByRole('alert')).toBeNull()
  rerender(<Part open close={noClose} />)
  await settle()
  expect(screen.getByText('the dialog')).toBeTruthy()
})
