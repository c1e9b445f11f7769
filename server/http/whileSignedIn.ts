/** A stream's session is asked for so often, ms: after signing out it goes on no longer than that. */
const EVERY_MS = 30_000

/**
 * A signal for a stream that may go on for hours: aborted when whoever asked goes away, or once `isSignedIn` says no.
 * Where that cannot be told just now the stream goes on.
 */
export function whileSignedIn(
  request: Request,
  isSignedIn: (headers: Headers) => Promise<boolean>,
  everyMs = EVERY_MS,
): AbortSignal {
  const over = new AbortController()
  const headers = new Headers(request.headers)
  const asking = setInterval(() => {
    void isSignedIn(headers)
      .catch(() => true)
      .then((goesOn) => !goesOn && over.abort())
  }, everyMs)
  asking.unref()
  over.signal.addEventListener('abort', () => clearInterval(asking))
  if (request.signal.aborted) over.abort()
  request.signal.addEventListener('abort', () => over.abort())
  return over.signal
}
