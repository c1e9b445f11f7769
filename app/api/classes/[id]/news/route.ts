import { can } from '@/server/platform/accounts/can'
import { currentUser, isSessionOn } from '@/server/platform/accounts/session'
import { findClass } from '@/server/classes/classes'
import { subscribeToClass, type ClassEvent } from '@/server/classes/live'
import { database } from '@/server/platform/db/connection'
import { whileSignedIn } from '@/server/platform/http/whileSignedIn'
import { isId } from '@/server/platform/ids'

/** Interval of comment lines that prevent a proxy from closing the connection, ms. */
const BEAT_MS = 15_000

const encoder = new TextEncoder()
/** The line of an entry is made once, however many listen. */
const lines = new WeakMap<NonNullable<ClassEvent>, Uint8Array>()

function lineOf(news: ClassEvent): Uint8Array {
  if (news === null) return encoder.encode('data: null\n\n')
  const line = lines.get(news) ?? encoder.encode(`data: ${JSON.stringify(news)}\n\n`)
  lines.set(news, line)
  return line
}

/**
 * `GET /api/classes/<id>/news`: server-sent events of a class, one for each entry somebody wrote; `null` where the rows
 * are to be fetched again. A role without notes gets only that event.
 */
export async function GET(request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  const person = await currentUser()
  if (!person) return new Response(null, { status: 401 })
  const { id } = await params
  if (!isId(id) || !(await findClass(database(), person, id))) return new Response(null, { status: 404 })
  const seesNotes = can(person, 'seeNotes')
  const body = new ReadableStream<Uint8Array>({
    start(controller) {
      let over = false
      const end = () => {
        if (over) return
        over = true
        stop()
        clearInterval(beat)
        try {
          controller.close()
        } catch {
          // Closed from the other side already.
        }
      }
      // A closed connection gets no more events and delays no writer.
      const send = (line: Uint8Array) => {
        try {
          controller.enqueue(line)
        } catch {
          end()
        }
      }
      const stop = subscribeToClass(id, (news) => {
        // The writer gets their response first.
        if (news === null || seesNotes) setImmediate(() => send(lineOf(news)))
      })
      const beat = setInterval(() => send(encoder.encode(': beat\n\n')), BEAT_MS)
      whileSignedIn(request, isSessionOn).addEventListener('abort', end)
      send(encoder.encode(': open\n\n'))
    },
  })
  return new Response(body, {
    headers: { 'content-type': 'text/event-stream', 'cache-control': 'no-store', 'x-accel-buffering': 'no' },
  })
}
