import { createRng } from '../../base/rng'
import { KNEE_BY_EYE_CUTS_DEG } from '../../base/measurementNoise'
import { kneeEyeError, observerFrom, plumbEyeError, type EyePair } from './observerFromPairs'

type Seen = 'locked' | 'slightBend' | 'deepBend'
function pairsOf(count: number, bias: number, sd: number, seed = 1): EyePair<Seen>[] {
  const random = createRng(seed)
  return Array.from({ length: count }, () => {
    const flexion = 30 + 9 * random.normal()
    const looks = flexion + bias + sd * random.normal()
    const { locked, deepBend } = KNEE_BY_EYE_CUTS_DEG
    const seen = looks < locked ? 'locked' : looks > deepBend ? 'deepBend' : 'slightBend'
    return { seen, read: flexion + 2 * random.normal(), readSd: 2 }
  })
}

test('without pairs nothing is known: no bias, the usual spread', () => {
  const { bias, sd, pairs } = kneeEyeError([])
  expect(Math.abs(bias)).toBeLessThan(1e-9)
  expect(sd).toBeGreaterThan(5)
  expect(sd).toBeLessThan(7)
  expect(pairs).toBe(0)
})

test.each([-5, 0, 5])('a bias of %d° is found from many pairs, and its spread', (bias) => {
  const found = kneeEyeError(pairsOf(400, bias, 4))
  expect(Math.abs(found.bias - bias)).toBeLessThan(1)
  expect(Math.abs(found.sd - 4)).toBeLessThan(1)
})

test('with few pairs it is shrunk, and states how unsure it is', () => {
  const [five, twenty, many] = [5, 20, 400].map((count) => kneeEyeError(pairsOf(count, 5, 5, 3)))
  expect(Math.abs(five.bias)).toBeLessThan(5)
  expect(five.biasSd).toBeGreaterThan(twenty.biasSd)
  expect(twenty.biasSd).toBeGreaterThan(many.biasSd)
})

test('a word tapped by mistake does not run away with it', () => {
  const pairs = pairsOf(40, 0, 5)
  const spoilt = kneeEyeError([...pairs, { seen: 'locked', read: 60, readSd: 2 }])
  expect(Math.abs(spoilt.bias - kneeEyeError(pairs).bias)).toBeLessThan(1.5)
})

test('the observer of the wire format carries both', () => {
  expect(observerFrom(kneeEyeError([]), plumbEyeError([])).eye).toMatchObject({
    kneeBiasDeg: expect.closeTo(0, 6),
    plumbBiasMm: expect.closeTo(0, 6),
  })
})
