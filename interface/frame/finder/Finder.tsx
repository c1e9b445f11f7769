'use client'
import { SearchOutlined } from '@ant-design/icons'
import { usePathname } from 'next/navigation'
import { useEffect, useState } from 'react'
import { BarButton } from '../../kit/BarButton'
import { lazyDialog } from '../../kit/lazyDialog/lazyDialog'

const FinderDialog = lazyDialog(() => import('./FinderDialog'))

/** `/` from anywhere: a few letters of a name find the numbers. The list of members has its own field. */
export function Finder() {
  const path = usePathname()
  const [open, setOpen] = useState(false)
  const listed = path === '/members'
  useEffect(() => {
    if (listed) return
    const slash = (event: KeyboardEvent) => {
      const inField = event.target instanceof HTMLElement && event.target.closest('input, textarea')
      if (event.key !== '/' || inField) return
      event.preventDefault()
      setOpen(true)
    }
    window.addEventListener('keydown', slash)
    return () => window.removeEventListener('keydown', slash)
  }, [listed])
  if (listed) return null
  return (
    <>
      <BarButton onClick={() => setOpen(true)} aria-label="Find a rider’s numbers" title="Find a rider’s numbers ( / )">
        <SearchOutlined />
      </BarButton>
      <FinderDialog open={open} close={() => setOpen(false)} />
    </>
  )
}
