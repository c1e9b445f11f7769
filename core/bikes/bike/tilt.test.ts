import { formatTilt } from '../../messages/bikes/tilt'
import { assessTilt, isSaddleStraight, wedgeTiltDeg } from './tilt'

const at = (deg: number, floorDeg = 0) => ({ deg, floorDeg, across: 'highestPoints' as const })

test(
  'the floor’s angle at that bike is taken off: a floor off by 1° tilts the saddle by 1° ' +
    '(common practice, no source)',
  () => {
    expect(assessTilt(at(-2, -1), 'flat', 'byShape')).toMatchObject({ deg: -1, outcome: 'good' })
    expect(assessTilt(at(0, -1), 'flat', 'byShape').outcome).toBe('noseUp')
  },
)

test.each([
  ['flat', 0, 'good'],
  ['flat', -2, 'good'],
  ['flat', -3, 'noseDown'],
  ['flat', 1, 'noseUp'],
  ['tailKick', -3, 'good'],
  ['tailKick', -1, 'noseUp'],
  ['tailKick', -5, 'noseDown'],
  ['curved', -4.5, 'good'],
  ['curved', -2, 'noseUp'],
  ['curved', -7, 'noseDown'],
] as const)(
  'by shape: a %s saddle at %d° is %s (baselines 0…−2, −2…−4, −3…−6°, common practice, no source)',
  (shape, deg, outcome) => {
    expect(assessTilt(at(deg), shape, 'byShape').outcome).toBe(outcome)
  },
)

test('the level school wants 0 to −2° whatever the shape, and alarms beyond 4°', () => {
  expect(assessTilt(at(-1), 'curved', 'level').outcome).toBe('good')
  expect(assessTilt(at(-3.5), 'curved', 'level')).toMatchObject({ outcome: 'noseDown', alarm: false })
  expect(assessTilt(at(-4.5), 'curved', 'level').alarm).toBe(true)
})

test('over the front half the board is judged against level, whatever the shape', () => {
  const front = (deg: number, school: 'byShape' | 'level' | 'relief' = 'byShape') =>
    assessTilt({ deg, floorDeg: 0, across: 'frontHalf' }, 'curved', school)
  expect(front(-0.5)).toMatchObject({ windowDeg: [-1, 0], outcome: 'good' })
  expect(front(-4)).toMatchObject({ outcome: 'noseDown', alarm: true })
  expect(front(-0.5, 'level').outcome).toBe('good')
  expect(front(-2.5, 'relief').outcome).toBe('good')
})

test('what clinics and racing rules speak of is far outside every window here (memory)', () => {
  // Salai and co-workers, Br J Sports Med 1999: 10–15° nose down to treat back pain, a clinician's work, no fitting.
  for (const school of ['byShape', 'level', 'relief'] as const)
    expect(assessTilt(at(-10), 'flat', school)).toMatchObject({ outcome: 'noseDown', alarm: true })
  // The racing rule allows at most 9° ± 1°: every window of a studio lies within it.
  for (const shape of ['flat', 'tailKick', 'curved'] as const)
    for (const end of assessTilt(at(0), shape, 'relief').windowDeg) expect(Math.abs(end)).toBeLessThan(9)
})

test(
  'a wedge that lifts the front by 100 mm on a bike of 900 mm adds 6–7° (common practice, ' +
    'no source); a 10 % slope is 5.7° (atan 0.10)',
  () => {
    expect(wedgeTiltDeg(100, 900)).toBeGreaterThan(6)
    expect(wedgeTiltDeg(100, 900)).toBeLessThan(7)
    expect(wedgeTiltDeg(10, 100)).toBeCloseTo(5.71, 2)
    expect(wedgeTiltDeg(-3, 900)).toBeLessThan(0)
  },
)

test('a saddle 2–3 mm off its line after closing is noticed', () => {
  expect([0, 2, -2, 3].map(isSaddleStraight)).toEqual([true, true, true, false])
})

test('a deviation is stated with what it causes and where to look first', () => {
  const { sentence, because } = formatTilt(assessTilt(at(2.4), 'flat', 'byShape'))
  expect(sentence).toBe('Nose up 2.4°; level to 2° down is wanted. That is far off.')
  expect(because.join(' ')).toMatch(/look there before levelling/)
  expect(formatTilt(assessTilt(at(-3), 'tailKick', 'byShape'))).toEqual({
    sentence: 'Nose down 3.0°: as wanted, 2 to 4° down.',
    because: [],
  })
})
