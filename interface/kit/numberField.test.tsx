import { fireEvent, render, screen } from '@testing-library/react'
import { NumberField } from './NumberField'

function field(value: number | null, changed: (value: number) => void = () => undefined) {
  render(<NumberField aria-label="Width" min={3} max={60} step={0.5} unit="m" value={value} onChange={changed} />)
  return screen.getByRole<HTMLInputElement>('textbox', { name: 'Width' })
}

test('a decimal comma is a decimal comma, and another unit is converted', () => {
  const read: number[] = []
  const input = field(12, (value) => read.push(value))
  fireEvent.change(input, { target: { value: '7,5' } })
  fireEvent.change(input, { target: { value: '820 cm' } })
  expect(read).toEqual([7.5, 8.2])
})

test('a number outside the limits stays as typed, is marked with them, and is reported to nobody', () => {
  const read: number[] = []
  const input = field(12, (value) => read.push(value))
  fireEvent.change(input, { target: { value: '75' } })
  expect(screen.getByRole('alert').textContent).toBe('3 to 60 m')
  fireEvent.blur(input)
  expect(input.value).toBe('75')
  expect(input.getAttribute('aria-invalid')).toBe('true')
  expect(read).toEqual([])
  // An emptied field shows the current value after blur.
  fireEvent.change(input, { target: { value: '' } })
  fireEvent.blur(input)
  expect(input.value).toBe('12')
})

test('the arrow keys step within the limits', () => {
  const read: number[] = []
  const input = field(59.5, (value) => read.push(value))
  fireEvent.keyDown(input, { key: 'ArrowUp' })
  fireEvent.keyDown(input, { key: 'ArrowDown' })
  expect(read).toEqual([60, 59])
})

test('where only whole numbers are valid a fraction is marked and reported to nobody', () => {
  const read: number[] = []
  render(<NumberField aria-label="Weeks" min={1} max={52} whole value={4} onChange={(value) => read.push(value)} />)
  const input = screen.getByRole('textbox', { name: 'Weeks' })
  fireEvent.change(input, { target: { value: '4,5' } })
  expect(screen.getByRole('alert').textContent).toMatch(/^whole, 1 to 52/)
  fireEvent.change(input, { target: { value: '6' } })
  expect(read).toEqual([6])
})
