import { onSessionsEnded } from '../accounts/sessionsEnded'

/** Interval of the session check, ms. */
const EVERY_MS = 30_000
/** When sessions were ended, the check runs as the transaction that ends them commits, and once more, ms. */
const AFTER_END_MS = [150, 800]

/**
 * Abort signal for a long-lived stream: aborts when the client disconnects or when `isSignedIn` returns
 * false. Checks at an interval and as sessions end. Ignores errors of the check, for example during a database restart.
 */
export function whileSignedIn(
  request: Request,
  isSignedIn: (headers: Headers) => Promise<boolean>,
  everyMs = EVERY_MS,
): AbortSignal {
  const over = new AbortController()
  const headers = new Headers(request.headers)
  const check = () => {
    if (over.signal.aborted) return
    void isSignedIn(headers)
      .catch(() => true)
      .then((goesOn) => !goesOn && over.abort())
  }
  const interval = setInterval(check, everyMs)
  interval.unref()
  const forget = onSessionsEnded(() => AFTER_END_MS.forEach((ms) => setTimeout(check, ms).unref()))
  over.signal.addEventListener('abort', () => {
    clearInterval(interval)
    forget()
  })
  if (request.signal.aborted) over.abort()
  request.signal.addEventListener('abort', () => over.abort())
  return over.signal
}
