import { REGIONS, signNamed, formatSign, SIGNS } from './signs'

test('ten signs, each in a region of the scan and with one short cue of its own', () => {
  expect(SIGNS).toHaveLength(10)
  expect(new Set(SIGNS.map((s) => s.sign)).size).toBe(10)
  expect(new Set(SIGNS.map((s) => s.cue)).size).toBe(10)
  for (const { region, cue } of SIGNS) {
    expect(REGIONS).toContain(region)
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
