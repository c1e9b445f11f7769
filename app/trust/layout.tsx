import type { ReactNode } from 'react'
import { AntdProvider } from '@/interface/kit/theme/AntdProvider'

export default function Layout({ children }: { children: ReactNode }) {
  return <AntdProvider>{children}</AntdProvider>
}
