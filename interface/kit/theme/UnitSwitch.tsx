'use client'
import { BarButton } from '../BarButton'
import { useUnitSystem } from './DevicePreferences'

/** Centimetres, or feet and inches: a choice of the device. */
export function UnitSwitch() {
  const { shown, swap } = useUnitSystem()
  const label = shown === 'imperial' ? 'Lengths in centimetres' : 'Lengths in feet and inches'
  return (
    <BarButton onClick={swap} aria-label={label} title={label}>
      {shown === 'imperial' ? 'ft' : 'cm'}
    </BarButton>
  )
}
