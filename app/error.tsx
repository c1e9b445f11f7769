'use client'
import { ErrorPage } from '@/interface/frame/ErrorPage'

export default function Failed({ reset }: { error: Error; reset: () => void }) {
  return (
    <ErrorPage
      title="The page did not open."
      text="The studio’s server or its database did not answer. What was saved before is safe."
      retry={reset}
    />
  )
}
