/** What a studio is called and where it is; the zone is one of the IANA time zone database. */
export type StudioFacts = Readonly<{ name: string; place: string; timeZone: string }>
export type StudioFactsIssue = 'noStudioName' | 'studioNameTooLong' | 'noTimeZone'

const MAX_LENGTH = 120

/** What is wrong with them; null where nothing is. */
export function studioFactsIssue({ name, place, timeZone }: StudioFacts): StudioFactsIssue | null {
  if (name.trim() === '') return 'noStudioName'
  if (name.length > MAX_LENGTH || place.length > MAX_LENGTH) return 'studioNameTooLong'
  return isTimeZone(timeZone) ? null : 'noTimeZone'
}

/** The zones to choose from. */
export const timeZones = (): readonly string[] => [...Intl.supportedValuesOf('timeZone'), 'UTC']

function isTimeZone(timeZone: string): boolean {
  if (!/^[A-Za-z0-9_+/-]{1,60}$/.test(timeZone)) return false
  try {
    new Intl.DateTimeFormat('en', { timeZone })
    return true
  } catch {
    return false
  }
}
