'use client'
import { MoonOutlined, SunOutlined } from '@ant-design/icons'
import { BarButton } from '../BarButton'
import { useLight } from './DevicePreferences'

export function LightSwitch() {
  const { light, turn } = useLight()
  const label = light === 'dim' ? 'Bright light' : 'Dim light'
  return (
    <BarButton onClick={turn} aria-label={label} title={label}>
      {light === 'dim' ? <SunOutlined /> : <MoonOutlined />}
    </BarButton>
  )
}
