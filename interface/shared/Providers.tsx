'use client'
import { AntdRegistry } from '@ant-design/nextjs-registry'
import { App, ConfigProvider } from 'antd'
import { createContext, useContext, useState, type ReactNode } from 'react'
import { themeFor, type Light } from './theme'

const LightContext = createContext<{ light: Light; turn: () => void }>({ light: 'bright', turn: () => undefined })
export const useLight = () => useContext(LightContext)

/** Theme, messages and the light switch; the light is kept per device in a cookie the layout reads. */
export function Providers({ light: first, children }: { light: Light; children: ReactNode }) {
  const [light, setLight] = useState(first)
  const turn = () => {
    const next: Light = light === 'dim' ? 'bright' : 'dim'
    document.cookie = `light=${next}; path=/; max-age=31536000; samesite=lax`
    document.documentElement.dataset.light = next
    setLight(next)
  }
  return (
    <AntdRegistry>
      <ConfigProvider theme={themeFor(light)} wave={{ disabled: true }} button={{ autoInsertSpace: false }}>
        <LightContext.Provider value={{ light, turn }}>
          <App message={{ maxCount: 1 }}>{children}</App>
        </LightContext.Provider>
      </ConfigProvider>
    </AntdRegistry>
  )
}
