import NextLink from 'next/link'
import type { ComponentProps } from 'react'

/**
 * A link to a page of the studio, fetched when it is pressed: the server renders every page per request, so that
 * fetching links ahead would cost the server some twenty requests a page.
 */
export function Link(props: ComponentProps<typeof NextLink>) {
  return <NextLink prefetch={false} {...props} />
}
