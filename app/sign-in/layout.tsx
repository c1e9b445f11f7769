import type { ReactNode } from 'react'
import { AntdProvider } from '@/interface/shared/AntdProvider'

export default function Layout({ children }: { children: ReactNode }) {
  return <AntdProvider>{children}</AntdProvider>
}
