import { database } from '@/server/db/connection'
import { getStudio } from '@/server/studio/studio'

export const dynamic = 'force-dynamic'

/** `GET /api/health`: 200 when server and database answer, 503 while the database does not. Says nothing else. */
export async function GET(): Promise<Response> {
  try {
    await getStudio(database())
    return Response.json({ open: true }, { headers: { 'cache-control': 'no-store' } })
  } catch {
    return Response.json({ open: false }, { status: 503, headers: { 'cache-control': 'no-store' } })
  }
}
