'use client'
import { BarButton } from '../BarButton'
import { useUnitSystem } from './DevicePreferences'

/** Centimetres, or feet and inches: a choice of the device. */
export function UnitSwitch() {
  const { shown, swap } = useUnitSystem()
  const says = shown === 'imperial' ? 'Lengths in centimetres' : 'Lengths in feet and inches'
  return (
    <BarButton onClick={swap} aria-label={says} title={says}>
      {shown === 'imperial' ? 'ft' : 'cm'}
    </BarButton>
  )
}
