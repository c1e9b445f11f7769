import { REGIONS, signNamed, formatSign, SIGNS } from './signs'

test('every sign has one short cue of its own, said calmly', () => {
  expect(new Set(SIGNS.map((s) => s.sign)).size).toBe(SIGNS.length)
  expect(new Set(SIGNS.map((s) => s.cue)).size).toBe(SIGNS.length)
  for (const { cue } of SIGNS) {
    expect(cue.length).toBeLessThan(80)
    expect(cue).not.toMatch(/!/)
  }
})

test('the scan goes from the feet up, and every region can be noted', () => {
  expect(REGIONS[0]).toBe('feet')
  for (const region of REGIONS) expect(SIGNS.some((s) => s.region === region)).toBe(true)
})

test('a sign is said with its region', () => {
  expect(formatSign(signNamed('kneesOut')!)).toBe('knees out')
})

test('an unknown sign is unknown', () => {
  expect(signNamed('kneesOut')?.region).toBe('knees')
  expect(signNamed('toString')).toBeUndefined()
})
