import { isErrorResponse } from '../../../core/operations/errorResponse'
import type { RecommendRequest } from '../../../core/setups/recommend/request/request'
import type { Recommendation } from '../../../core/operations/requests/recommend'
import type { Scope } from '../../platform/accounts/scope'
import { compute } from '../../platform/compute/pool'
import type { DbExecutor } from '../../platform/db/connection'
import { listEvidence } from '../../setups/evidence'
import type { RegisterEntry } from '../../setups/register'
import { HISTORY_ROWS } from '../../setups/setups'
import { validateRow } from '../../setups/validateRow'
import { getStudio } from '../../studio/studio'

/** Nobody waits longer for what a page shows beside the numbers, ms. */
const PATIENCE_MS = 8000

/**
 * What the core says of numbers, what was seen when they were made, and what else is `known` of the body; null where it
 * takes too long or refuses.
 */
export async function recommendationOf(
  db: DbExecutor,
  scope: Scope,
  entry: RegisterEntry,
  known: Pick<RecommendRequest, 'history' | 'body'> = {},
): Promise<Recommendation | null> {
  const rows = entry.setupId ? await listEvidence(db, scope, entry.setupId) : []
  const evidence = rows.map(({ row }) => row).filter((row) => 'row' in validateRow(entry.type, row))
  const answer = await compute<Recommendation>(
    'recommend',
    {
      bikeType: entry.type,
      bike: entry.machineCalibration ?? {},
      school: (await getStudio(db, scope)).school,
      ...known,
      evidence: evidence.slice(-HISTORY_ROWS),
    },
    PATIENCE_MS,
  )
  return isErrorResponse(answer) ? null : answer
}
