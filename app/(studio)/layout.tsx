import type { ReactNode } from 'react'
import { Components } from '@/interface/shared/Components'
import { Frame } from '../Frame'

export default function StudioLayout({ children }: { children: ReactNode }) {
  return (
    <Components>
      <Frame>{children}</Frame>
    </Components>
  )
}
