import { readFile } from 'node:fs/promises'
import { join } from 'node:path'

/** `GET /service-worker.js`: bundled beside the build; 404 under the development server, which has none. */
export async function GET(): Promise<Response> {
  try {
    const path = join(process.cwd(), process.env.NEXT_DIST ?? '.next', 'service-worker.js')
    return new Response(await readFile(path, 'utf8'), {
      headers: { 'content-type': 'text/javascript; charset=utf-8', 'cache-control': 'no-cache' },
    })
  } catch {
    return new Response('// none', { status: 404, headers: { 'content-type': 'text/javascript' } })
  }
}
