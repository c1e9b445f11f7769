import { deviceKind } from './trust'

/** Forms of `userAgent` as browsers send them, from memory. */
test.each([
  ['Mozilla/5.0 (iPhone; CPU iPhone OS 18_0 like Mac OS X) AppleWebKit/605.1.15', true, 'ios'],
  ['Mozilla/5.0 (Macintosh; Intel Mac OS X 10_15_7) AppleWebKit/605.1.15', true, 'ios'],
  ['Mozilla/5.0 (Macintosh; Intel Mac OS X 10_15_7) AppleWebKit/605.1.15', false, 'mac'],
  ['Mozilla/5.0 (Linux; Android 14; Tablet) AppleWebKit/537.36', true, 'android'],
  ['Mozilla/5.0 (Windows NT 10.0; Win64; x64) AppleWebKit/537.36', true, 'windows'],
  ['Mozilla/5.0 (X11; Linux x86_64; rv:128.0) Gecko/20100101', false, 'linux'],
] as const)('%s with touch %s is of kind %s', (userAgent, hasTouch, kind) => {
  expect(deviceKind(userAgent, hasTouch)).toBe(kind)
})
