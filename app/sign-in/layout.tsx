import type { ReactNode } from 'react'
import { Components } from '@/interface/shared/Components'

export default function Layout({ children }: { children: ReactNode }) {
  return <Components>{children}</Components>
}
