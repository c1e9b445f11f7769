import { database } from '@/server/platform/db/connection'
import { answers } from '@/server/studio/studio'

export const dynamic = 'force-dynamic'

/**
 * `GET /api/health/ready` and `/api/health`: 200 when server and database answer, 503 while the database does not.
 * Returns nothing else.
 */
export async function GET(): Promise<Response> {
  const open = await answers(database()).catch(() => false)
  return Response.json({ open }, { status: open ? 200 : 503, headers: { 'cache-control': 'no-store' } })
}
