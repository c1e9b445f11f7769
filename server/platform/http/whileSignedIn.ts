/** Interval of the session check, ms. */
const EVERY_MS = 30_000

/**
 * Abort signal for a long-lived stream: aborts when the client disconnects or when `isSignedIn` returns false. Ignores
 * errors of the check, for example during a database restart.
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
