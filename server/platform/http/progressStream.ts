/** A message of a long answer: how far it is, or its end. */
export type ProgressMessage<Result> = Readonly<{ done: number; of: number }> | Readonly<{ result: Result }>

/** Minimum interval of progress reports, ms. */
const EVERY_MS = 120

/**
 * A long answer as lines of JSON: progress while it is worked on, the result last. When the client disconnects,
 * `signal` is aborted.
 */
export function progressResponse<Result>(
  request: Request,
  work: (progress: (done: number, of: number) => void, signal: AbortSignal) => Promise<Result>,
): Response {
  const gone = new AbortController()
  request.signal.addEventListener('abort', () => gone.abort())
  const encoder = new TextEncoder()
  let reported = 0
  const body = new ReadableStream<Uint8Array>({
    async start(controller) {
      const send = (message: ProgressMessage<Result>) => {
        if (!gone.signal.aborted) controller.enqueue(encoder.encode(`${JSON.stringify(message)}\n`))
      }
      try {
        const result = await work((done, of) => {
          if (performance.now() - reported < EVERY_MS) return
          reported = performance.now()
          send({ done, of })
        }, gone.signal)
        send({ result })
        if (!gone.signal.aborted) controller.close()
      } catch (error) {
        if (!gone.signal.aborted) controller.error(error)
      }
    },
    cancel: () => gone.abort(),
  })
  return new Response(body, { headers: { 'content-type': 'application/x-ndjson', 'cache-control': 'no-store' } })
}
