/** Why an account, a password or a first start was refused, as a sentence beside the form. */
export const ACCOUNT_TEXT = Object.freeze({
  noName: 'Type your name.',
  nameTooLong: 'The name is longer than 120 letters; shorten it.',
  badUsername: 'The name to sign in with has 3 to 30 letters, digits, dots or underscores, such as ada.l.',
  usernameTaken: 'Somebody signs in with this name already. Choose another.',
  tooShort: 'The password needs at least 10 letters.',
  tooLong: 'The password is longer than 200 letters.',
  easyToGuess: 'This password is easy to guess. Three or four unrelated words are hard, and easy to remember.',
  wrongTotp: 'This code does not fit. It changes every half minute: is the clock of the device right?',
  badPin: 'A PIN has six digits.',
  easyPin: 'This PIN is among the first that anybody tries. Choose another.',
  wrong: 'The present password does not fit.',
  noStudioName: 'Type what the studio is called.',
  studioNameTooLong: 'The name or the place is longer than 120 letters; shorten it.',
  noTimeZone: 'Choose the studio’s time zone from the list.',
  wrongCode: 'This is not the code that was printed when the studio was started. It is new at each start.',
  begun: 'This studio was begun already. Sign in, or ask its manager for an invitation.',
  gone: 'This link does not exist. Ask the studio’s manager for a new one.',
  used: 'This link was used already. Sign in, or ask the studio’s manager for a new one.',
  revoked: 'This link was taken back. Ask the studio’s manager for a new one.',
  expired: 'This link has ended: it lasts two days. Ask the studio’s manager for a new one.',
  passkeyFirst:
    'Sign in with your passkey first. Is its device lost? A manager’s link to a new password takes the passkey away.',
  tooManyTries: 'Too many tries in a row. Wait a few minutes, then try again.',
  unreadable: 'Something could not be read. Look it over and send it again.',
})
export type AccountRefusal = keyof typeof ACCOUNT_TEXT

/** Passkeys on the account page and at sign-in. */
export const PASSKEY_TEXT = Object.freeze({
  about: 'A device that signs you in by finger, face or its own code, without password and second factor.',
  noName: 'Passkeys need an address with a name, such as studio.local; browsers refuse them at a number.',
  added: 'The passkey is added. Sign in with it on this device from now on.',
  stale: 'For a new passkey, sign out and in again first: the last sign-in is more than ten minutes ago.',
  passkeyFirst: 'Sign in with your passkey first. Where its device is lost, a manager’s link to a new password helps.',
  refused: 'This did not work. The passkey may be another studio’s, or was removed here.',
  unreachable: 'The studio’s server cannot be reached. Check the network and try again.',
})

/** What makes a good password, under its field. */
export const MIN_PASSWORD_TEXT = 'At least 10 letters; three or four unrelated words are best.'

export const ROLE_NAME = Object.freeze({
  manager: 'Manager',
  instructor: 'Instructor',
  trainee: 'Trainee',
  desk: 'Desk',
})
/** What a role may do, in one sentence. */
export const ROLE_TEXT = Object.freeze({
  manager: 'Everything, with bikes, school, people and files.',
  instructor: 'Sets riders up, teaches, takes notes.',
  trainee: 'Sets riders up and takes notes; an instructor confirms the numbers.',
  desk: 'Sees members, places and numbers; no health notes.',
})

type KeyScope = 'operations' | 'desk' | 'instructor'
/** What the key of another program may do. */
export const KEY_SCOPE_NAME: Readonly<Record<KeyScope, string>> = Object.freeze({
  operations: 'Compute alone',
  desk: 'Members and bookings',
  instructor: 'Notes and set-ups too',
})
export const KEY_SCOPE_TEXT: Readonly<Record<KeyScope, string>> = Object.freeze({
  operations: 'Sends a bike and what was seen, and gets an answer. Sees nobody.',
  desk: 'What the desk may do: add members, put riders on bikes.',
  instructor: 'What an instructor may do, health notes among it.',
})
export const KEYS_TEXT = Object.freeze({
  about: 'A key lets another program send commands and computations to /api/v1. What it does stands under its name.',
})
