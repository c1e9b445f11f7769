/**
 * Starts the background work of the server: keeps the access log, deletes what a studio keeps no longer, polls a
 * connected booking service and calendar feed.
 */
export async function register(): Promise<void> {
  const { BOOKING_SERVICE_URL: bookings, CALENDAR_FEED_URL: calendar, BOOKING_STUDIO: studioId } = process.env
  if (process.env.NEXT_RUNTIME !== 'nodejs') return
  const [{ keepAccessLog }, { keepRetention }, connection] = await Promise.all([
    import('./server/privacy/accessLog/settle'),
    import('./server/privacy/daily'),
    import('./server/platform/db/connection'),
  ])
  keepAccessLog()
  keepRetention(connection.database)
  if (!studioId || !(bookings || calendar)) return
  const { database } = connection
  const [{ httpBookingService }, { pollBookings, pollCalendar }] = await Promise.all([
    import('./server/classes/bookings/bookingService'),
    import('./server/classes/bookings/poll'),
  ])
  const { signal } = new AbortController()
  if (bookings) void pollBookings(database(), studioId, httpBookingService(bookings), signal)
  if (calendar) void pollCalendar(database(), studioId, calendar, signal)
}

/** Called by the framework for each request that ended in a fault. */
export async function onRequestError(
  error: unknown,
  _request: unknown,
  { routePath }: Readonly<{ routePath: string }>,
): Promise<void> {
  if (process.env.NEXT_RUNTIME !== 'nodejs') return
  const { noteError } = await import('./server/platform/http/recentErrors')
  noteError(routePath, error, Date.now())
}
