import type { ReactNode } from 'react'
import { Frame } from '../Frame'

/** Pages without the component library: they open quickly on an old phone. */
export default function FloorLayout({ children }: { children: ReactNode }) {
  return <Frame>{children}</Frame>
}
