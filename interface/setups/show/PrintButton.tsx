'use client'
import { Button } from 'antd'

export function PrintButton() {
  return (
    <Button className="no-print" size="large" onClick={() => window.print()}>
      Print
    </Button>
  )
}
