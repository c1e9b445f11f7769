'use client'
import { Button } from 'antd'
import { useUnitSystem } from './Providers'

/** Centimetres, or feet and inches: a choice of the device. */
export function UnitSwitch() {
  const { shown, swap } = useUnitSystem()
  const says = shown === 'imperial' ? 'Lengths in centimetres' : 'Lengths in feet and inches'
  return (
    <Button type="text" onClick={swap} aria-label={says} title={says}>
      {shown === 'imperial' ? 'ft' : 'cm'}
    </Button>
  )
}
