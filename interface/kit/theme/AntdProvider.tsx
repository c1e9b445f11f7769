'use client'
import '../antd/base.generated.css'
import { App, ConfigProvider } from 'antd'
import type { ReactNode } from 'react'
import { ComponentStyles } from './ComponentStyles'
import { useLight } from './DevicePreferences'
import { themeFor } from './theme'

/**
 * The component library with its theme and messages, for the pages that use it. The floor during a class does without:
 * it has to open quickly on an old phone. `inside` of a page it adds no element of its own.
 */
export function AntdProvider({ inside = false, children }: { inside?: boolean; children: ReactNode }) {
  const { light } = useLight()
  return (
    <ComponentStyles>
      <ConfigProvider theme={themeFor(light)} wave={{ disabled: true }} button={{ autoInsertSpace: false }}>
        <App message={{ maxCount: 1 }} component={inside ? false : 'div'}>
          {children}
        </App>
      </ConfigProvider>
    </ComponentStyles>
  )
}
