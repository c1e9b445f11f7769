import { PageNav } from './PageNav'

const PAGES = [
  ['', 'Numbers'],
  ['/reasons', 'Reasons'],
  ['/story', 'Story'],
] as const

/** From one page of a rider to the next: their numbers, what is felt and why, and everything in one line of time. */
export function RiderNav({ memberId, here }: { memberId: string; here: (typeof PAGES)[number][1] }) {
  const pages = PAGES.map(([path, name]) => [`/riders/${memberId}${path}`, name] as const)
  return <PageNav label="Of this rider" pages={pages} here={here} />
}
