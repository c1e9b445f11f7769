/**
 * How each kind of device is made to trust the studio's own certificate authority, in the order of its own settings.
 * The names of the menus are from memory; they differ a little between versions.
 */
export const TRUST_STEPS = Object.freeze({
  ios: {
    name: 'iPhone or iPad',
    steps: [
      'Open this page in Safari and press “Get the certificate”. Allow the profile.',
      'Open Settings. At the top: Profile Downloaded. Install it.',
      'Settings, General, About, Certificate Trust Settings: switch the studio’s authority on.',
    ],
  },
  android: {
    name: 'Android',
    steps: [
      'Press “Get the certificate” and keep the file.',
      'Open Settings, Security, Encryption and credentials, Install a certificate, CA certificate. Where it lies ' +
        'elsewhere, search the settings for “certificate”.',
      'Choose the file. The device needs a screen lock, and warns: install anyway.',
    ],
  },
  windows: {
    name: 'Windows',
    steps: [
      'Press “Get the certificate” and open the file.',
      'Install Certificate, Local Machine, then place it in “Trusted Root Certification Authorities”.',
      'Close the browser and open it again.',
    ],
  },
  mac: {
    name: 'Mac',
    steps: [
      'Press “Get the certificate” and open the file: Keychain Access takes it.',
      'Double-click it there, open Trust, and set “Always Trust”.',
      'Close the browser and open it again.',
    ],
  },
  linux: {
    name: 'Linux, and Firefox anywhere',
    steps: [
      'Press “Get the certificate” and keep the file.',
      'In the browser’s settings search for “certificates”, open the authorities and import the file for websites.',
      'Close the browser and open it again.',
    ],
  },
} as const)
export type DeviceKind = keyof typeof TRUST_STEPS

/** A kind of device where one is signed in. */
export const DEVICE_NAME: Readonly<Record<DeviceKind, string>> = Object.freeze({
  ios: 'iPhone or iPad',
  android: 'Android',
  windows: 'Windows',
  mac: 'Mac',
  linux: 'Linux',
})

/** The kind of device that a browser's `userAgent` names; tablets that claim to be a Mac have a touch screen. */
export function deviceKind(userAgent: string, hasTouch: boolean): DeviceKind {
  if (/iPhone|iPad|iPod/.test(userAgent) || (/Macintosh/.test(userAgent) && hasTouch)) return 'ios'
  if (/Android/.test(userAgent)) return 'android'
  if (/Windows/.test(userAgent)) return 'windows'
  return /Macintosh/.test(userAgent) ? 'mac' : 'linux'
}

/** Under the title of the page behind a device's first visit. */
export const TRUST_LEAD =
  'Once on each device: then it opens the studio without a warning, has pages for a class without network, and may ' +
  'use its camera.'

/** How other devices reach the studio, beside its address. */
export const REACH_TEXT = Object.freeze({
  trustFirst:
    'A phone or tablet opens this first, once: it tells how to trust the studio’s own certificate. After that the ' +
    'studio works there without network, and the camera may be used.',
  open: 'Phones and tablets open this address. They trust it by themselves.',
  thisComputer:
    'Only this computer reaches the studio. To let phones and tablets in, stop it, run “npm run certificate” with ' +
    'this computer’s address, and start it again.',
})

/** "The certificate is good for 12 days more." */
export function formatCertificateEnd(daysLeft: number, renews: boolean): string {
  if (daysLeft < 0) return 'The certificate has ended.'
  const days = daysLeft === 1 ? 'one day' : `${daysLeft} days`
  return `The certificate is good for ${days} more${renews ? ', and is renewed by itself' : ''}.`
}
