import { formatDay } from '../../../core/messages/words/dates'
import { formatMarks } from '../../../core/messages/words/labels'
import { can } from '../../platform/accounts/can'
import type { Scope } from '../../platform/accounts/scope'
import type { DbExecutor } from '../../platform/db/connection'
import { listAloneSetups } from '../../setups/aloneSetups'

/** Somebody who set themselves up alone and waits for a look. */
export type AloneItem = Readonly<{
  id: string
  name: string
  number: number
  /** "7 · C · 5 · 2" */
  numbers: string
  atMs: number
  isToday: boolean
  day: string
}>

/** Who waits for a look, in every class of the studio; nobody for a role that sets nobody up. */
export async function aloneItems(db: DbExecutor, scope: Scope, timeZone: string, now: Date): Promise<AloneItem[]> {
  if (!can(scope, 'setUpRiders')) return []
  return (await listAloneSetups(db, scope, now)).map(({ id, name, number, type, marks, createdAt }) => ({
    id,
    name,
    number,
    numbers: formatMarks(type, marks),
    atMs: createdAt.getTime(),
    isToday: formatDay(createdAt, timeZone) === formatDay(now, timeZone),
    day: formatDay(createdAt, timeZone),
  }))
}
