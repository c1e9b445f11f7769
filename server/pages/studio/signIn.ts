import type { DbExecutor } from '../../platform/db/connection'
import { peopleOfTablet, type PairedTablet } from '../../platform/accounts/pin'
import { getStudio } from '../../studio/studio'

/** Where nobody is signed in: on a shared tablet with the names of its people; `to`: the page to open then. */
export type SignInFacts = Readonly<{
  tablet: Readonly<{ studio: string; name: string; people: readonly Readonly<{ id: string; name: string }>[] }> | null
  to: string
}>

/** Opens the class that runs in the tablet's room. */
const HOME = '/tablet'
const OWN_PAGE = /^\/[a-z][\w/-]*$/

export async function signInPage(
  db: DbExecutor,
  paired: PairedTablet | null,
  wanted: string | undefined,
): Promise<SignInFacts> {
  // Only a page of this studio: an address from elsewhere must lead nobody away.
  const to = wanted && OWN_PAGE.test(wanted) ? wanted : HOME
  if (!paired) return { tablet: null, to }
  const { name: studio } = await getStudio(db, paired)
  return { tablet: { studio, name: paired.name, people: await peopleOfTablet(db, paired) }, to }
}
