/** Why some entries cannot be sent: a refusal in its own words, or a state of the device. */
export type OutboxTrouble =
  | Readonly<{ code: 'refused'; say: string }>
  | Readonly<{ code: 'signedOut' | 'fragile' | 'noRoom' | 'offline' | 'offlineSaving' }>

const TROUBLE = {
  signedOut: 'You are signed out. What you tap is kept on this device and sent when you sign in here again.',
  fragile: 'This device’s storage is full or closed: keep this page open until everything is sent.',
  noRoom: 'The disk of the studio’s computer is full: kept on this device, sent once there is room.',
  offline: 'No network: kept on this device, sent when it is back.',
  offlineSaving: 'No network: the numbers are kept on this device and saved when it is back. You may leave this page.',
} as const

export const formatTrouble = (trouble: OutboxTrouble): string =>
  trouble.code === 'refused' ? `Not taken: ${trouble.say}.` : TROUBLE[trouble.code]
