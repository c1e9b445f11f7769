import { fireEvent, render, screen } from '@testing-library/react'
import { DevicePreferences, useLight, type Light } from './DevicePreferences'

function Switch() {
  const { light, turn } = useLight()
  return <button onClick={turn}>{light}</button>
}
const page = (light: Light) => (
  <DevicePreferences light={light} lengths="metric">
    <Switch />
  </DevicePreferences>
)
const root = document.documentElement

test('the light that was turned stays where the page arrives again with an earlier one', () => {
  root.dataset.light = 'bright'
  const { rerender } = render(page('bright'))
  fireEvent.click(screen.getByRole('button'))
  expect([root.dataset.light, screen.getByRole('button').textContent]).toEqual(['dim', 'dim'])
  fireEvent.click(screen.getByRole('button'))
  // The page that was asked for while it was dim arrives: its attribute and its property.
  root.dataset.light = 'dim'
  rerender(page('dim'))
  expect([root.dataset.light, screen.getByRole('button').textContent]).toEqual(['bright', 'bright'])
})
