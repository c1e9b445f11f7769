import type { ReactNode } from 'react'
import { AntdProvider } from '@/interface/kit/theme/AntdProvider'
import { Frame } from '../Frame'

export default function StudioLayout({ children }: { children: ReactNode }) {
  return (
    <AntdProvider>
      <Frame>{children}</Frame>
    </AntdProvider>
  )
}
