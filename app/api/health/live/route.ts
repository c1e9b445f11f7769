export const dynamic = 'force-dynamic'

/** `GET /api/health/live`: 200 as long as the server answers at all. */
export function GET(): Response {
  return Response.json({ live: true }, { headers: { 'cache-control': 'no-store' } })
}
