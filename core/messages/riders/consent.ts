import type { ConsentWay } from '../../riders/consent/consent'

/** The wording a studio begins with. */
export const DEFAULT_CONSENT_WORDING =
  'You agree that we note how you sit and move on the bike, what you feel there, and injuries or conditions you tell ' +
  'us of, to set the bike up and to teach you. Those who teach here and managers see it, nobody else. You may see ' +
  'it, have it erased, or withdraw at any time; your numbers still work.'

const WAY_TEXT: Readonly<Record<ConsentWay, string>> = {
  spoken: 'by word',
  written: 'in writing',
  ownPage: 'on their own page',
}

/** "Agreed by word on Fri 2 Oct 2026, wording 1" */
export const formatConsent = (way: ConsentWay, date: string, wording: number): string =>
  `Agreed ${WAY_TEXT[way]} on ${date}, wording ${wording}`

export const CONSENT_TEXT = Object.freeze({
  title: 'Consent to notes',
  none: 'Not asked yet, or withdrawn. Without it nothing about their body or health is noted; numbers still work.',
  spoken: 'They agree, by word',
  written: 'They signed it',
  withdraw: 'They withdraw it',
  ask: 'Ask first',
  agrees: 'They agree',
  declines: 'Go on without',
  withdrawn: 'Withdrawn. Nothing more is noted; what is noted stays until it is erased.',
  ownNone: 'You have not agreed yet. What you send here about how you feel counts as a yes.',
  ownAgree: 'I agree',
  ownWithdraw: 'Withdraw',
})
