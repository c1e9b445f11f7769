import { ErrorPage } from '@/interface/frame/ErrorPage'

export default function NotFound() {
  return (
    <ErrorPage
      title="Nobody here."
      text="This page, rider or set-up does not exist. Perhaps the address was cut short."
    />
  )
}
