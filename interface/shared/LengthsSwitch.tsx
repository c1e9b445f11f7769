'use client'
import { Button } from 'antd'
import { useLengths } from './Providers'

/** Centimetres, or feet and inches: a choice of the device. */
export function LengthsSwitch() {
  const { shown, swap } = useLengths()
  const says = shown === 'feet' ? 'Lengths in centimetres' : 'Lengths in feet and inches'
  return (
    <Button type="text" onClick={swap} aria-label={says} title={says}>
      {shown === 'feet' ? 'ft' : 'cm'}
    </Button>
  )
}
