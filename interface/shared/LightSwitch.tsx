'use client'
import { MoonOutlined, SunOutlined } from '@ant-design/icons'
import { Button } from 'antd'
import { useLight } from './Providers'

export function LightSwitch() {
  const { light, turn } = useLight()
  const says = light === 'dim' ? 'Bright light' : 'Dim light'
  return (
    <Button
      type="text"
      icon={light === 'dim' ? <SunOutlined /> : <MoonOutlined />}
      onClick={turn}
      aria-label={says}
      title={says}
    />
  )
}
