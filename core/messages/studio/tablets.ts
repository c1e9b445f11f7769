/** After how many minutes without a touch a shared tablet may lock. */
export const IDLE_MINUTES = [2, 5, 10, 20] as const

export const TABLETS_TEXT = Object.freeze({
  about:
    'A tablet in the hall that several people share. Each opens it with a PIN of six digits instead of a password, ' +
    'and what they note carries their name. On it nobody does more than an instructor may.',
  pairing: 'You are signed out here, and the tablet shows the names of those who have a PIN.',
  notTaken: 'The server paired it, but this device could not store that. Unpair it in the list, then try again.',
  none: 'No tablet is shared yet. Open this page on the tablet to pair it.',
})

/** Why a sign-in by PIN was refused, on the tablet. */
export const PIN_TEXT = Object.freeze({
  wrong: 'This PIN does not fit.',
  notPaired: 'This tablet is not paired any more. Sign in with a password.',
  fault: 'The studio’s server had a fault. Try again.',
  unreachable: 'The studio’s server cannot be reached. Check the network and try again.',
})

/** "Too many tries. Wait 5 minutes, or sign in with your password." */
export function formatPinWait(seconds: number): string {
  const minutes = Math.ceil(seconds / 60)
  const wait = minutes <= 1 ? 'a minute' : minutes < 90 ? `${minutes} minutes` : 'until tomorrow'
  return `Too many tries. Wait ${wait}, or sign in with your password.`
}

/** "Hall A, locks after 5 minutes, last opened 3 Dec". */
export const formatTablet = (room: string | null, idleMinutes: number, used: string | null): string =>
  [
    ...(room ? [room] : []),
    `locks after ${idleMinutes} minutes`,
    used ? `last opened ${used}` : 'not opened by PIN yet',
  ].join(', ')
