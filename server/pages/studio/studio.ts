import { listTypes } from '../../bikes/versions'
import type { Scope } from '../../platform/accounts/scope'
import type { Database } from '../../platform/db/connection'
import { learnedPrior, suggestionRecordOf } from '../../setups/learned'
import { getStudio } from '../../studio/studio'

/** How the studio sets riders up, with what its own set-ups teach; the latter null while it is computed. */
export async function studioPage(db: Database, scope: Scope) {
  const [studio, types] = await Promise.all([getStudio(db, scope), listTypes(db, scope)])
  const learned = await learnedPrior(db, scope, studio)
  return {
    name: studio.name,
    settings: { school: studio.school, costs: studio.costs ?? {}, learns: studio.learns },
    ridersAlone: studio.ridersAlone,
    learned,
    record: await suggestionRecordOf(db, scope, studio, learned),
    types: types.map(({ lineId, bikeType }) => ({ id: lineId, bikeType })),
  }
}
