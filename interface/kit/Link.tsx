import NextLink from 'next/link'
import type { ComponentProps } from 'react'

/**
 * A link to a page of the studio, fetched when it is pressed: every page is made for whoever requests it, so that
 * fetching links ahead would cost the server some twenty requests a page.
 */
export function Link(props: ComponentProps<typeof NextLink>) {
  return <NextLink prefetch={false} {...props} />
}
