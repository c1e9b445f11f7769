import { act, fireEvent, render, screen } from '@testing-library/react'
import { App } from 'antd'
import { Bothers } from './Bothers'

const sendComplaint = jest.fn<Promise<object>, unknown[]>(async () => ({ outcome: 'kept' }))
jest.mock('../../commands/command', () => ({ ownCommand: (...sent: unknown[]) => sendComplaint(...sent) }))

const REFERRAL = 'Stop riding for today. With chest pain call the emergency number.'

async function tap(...names: string[]) {
  for (const name of names) await act(async () => void fireEvent.click(screen.getByRole('button', { name })))
}

function page() {
  render(
    <App>
      <Bothers token="token" referral={REFERRAL} />
    </App>,
  )
}

test('chest pain is sent by one tap, and the stop sentence is still there afterwards', async () => {
  page()
  await tap('Tell us', 'Chest pain')
  expect(sendComplaint.mock.calls.at(-1)![2]).toMatchObject({ said: { what: 'chest', side: null } })
  expect(screen.getByRole('alert').textContent).toContain(REFERRAL)
  expect(screen.queryByText(/sees it with the next class/)).toBeNull()
})

test('a flag by its quality keeps the stop sentence too; an ordinary complaint shows none', async () => {
  page()
  await tap('Tell us', 'Front of the knee', '4', 'Sharp', 'Send')
  expect(screen.getByRole('alert').textContent).toContain(REFERRAL)
  await tap('Say something else', 'Front of the knee', '4', 'Send')
  expect(screen.queryByRole('alert')).toBeNull()
  expect(screen.getByRole('status').textContent).toMatch(/sees it with the next class/)
})
