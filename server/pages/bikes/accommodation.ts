import { schoolOf } from '../../../core/base/school/school'
import { listBikes } from '../../bikes/bikes'
import { fleetAccommodation, typesInUse } from '../../bikes/fleetAccommodation'
import { listTypes } from '../../bikes/versions'
import type { Scope } from '../../platform/accounts/scope'
import type { DbExecutor } from '../../platform/db/connection'
import { getStudio } from '../../studio/studio'

/** The types in use, the request of who fits them, and its answer where it is computed already. */
export async function accommodationPage(db: DbExecutor, scope: Scope) {
  const studio = await getStudio(db, scope)
  const types = typesInUse(await listTypes(db, scope), await listBikes(db, scope))
  const request = { bikeTypes: types.map(({ bikeType }) => bikeType), school: schoolOf(studio.school) }
  return { types, request, computed: fleetAccommodation(scope, request) }
}
