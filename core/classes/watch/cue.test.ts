import { cueAdvice, roomCue, roomCueResult, type CuedNote } from './cue'
import { formatSign, REGIONS, signNamed, SIGNS } from './signs'

const said = (sign: string, held: boolean | null): CuedNote => ({ memberId: 'm', sign, cued: true, held })

test('a cause below comes before what shows above', () => {
  expect(cueAdvice(['shrugged', 'toesDown', 'rocking'], [])).toMatchObject({ kind: 'say', sign: { sign: 'toesDown' } })
  expect(cueAdvice([], [])).toBeNull()
  expect(cueAdvice(['noSuchSign'], [])).toBeNull()
})

test('a cue that failed three times is not proposed again: set-up first, unless it holds as often', () => {
  const failed = [said('rocking', false), said('rocking', false)]
  expect(cueAdvice(['rocking'], failed)).toMatchObject({ kind: 'say', said: 2, failed: 2 })
  const thrice = [...failed, said('rocking', false)]
  expect(cueAdvice(['rocking'], thrice)).toMatchObject({ kind: 'setUpFirst', failed: 3 })
  // Noted and never said, or not looked at again, is no failure.
  const unsaid = [{ ...said('rocking', false), cued: false }, said('rocking', null)]
  expect(cueAdvice(['rocking'], [...failed, ...unsaid])).toMatchObject({ kind: 'say', said: 3, failed: 2 })
  const held = [said('rocking', true), said('rocking', true), said('rocking', true)]
  expect(cueAdvice(['rocking'], [...thrice, ...held])).toMatchObject({ kind: 'say', held: 3, failed: 3 })
})

test('the room’s cue meets most riders, each counted once; of two alike the lower', () => {
  const open = [
    { memberId: 'a', sign: 'shrugged' },
    { memberId: 'a', sign: 'shrugged' },
    { memberId: 'b', sign: 'toesDown' },
    { memberId: 'c', sign: 'shrugged' },
    { memberId: 'd', sign: 'toesDown' },
  ]
  expect(roomCue(open, 8)).toMatchObject({ sign: { sign: 'toesDown' }, riders: ['b', 'd'] })
  expect(roomCue([...open, { memberId: 'e', sign: 'shrugged' }], 8)).toMatchObject({ riders: ['a', 'c', 'e'] })
  expect(roomCue([], 8)).toBeNull()
  // Two of nine riders are fewer than a quarter.
  expect(roomCue(open, 9)).toBeNull()
})

test('what changed is counted against whom it did not concern, and only once somebody looked again', () => {
  expect(roomCueResult({ changed: 0, of: 0 }, { changed: 1, of: 4 })).toBeNull()
  const clear = roomCueResult({ changed: 9, of: 10 }, { changed: 1, of: 10 })!
  expect(clear.low).toBeGreaterThan(0)
  const few = roomCueResult({ changed: 2, of: 3 }, { changed: 1, of: 3 })!
  expect(few.low).toBeLessThan(0)
  // Nobody else looked at: anything may be so.
  expect(roomCueResult({ changed: 3, of: 3 }, { changed: 0, of: 0 })!.low).toBeLessThan(0)
})

test('every sign of the scan is there once, with a sentence of its own, under its region from the feet up', () => {
  expect(new Set(SIGNS.map(({ sign }) => sign)).size).toBe(SIGNS.length)
  expect(new Set(SIGNS.map(({ cue }) => cue)).size).toBe(SIGNS.length)
  const perRegion = REGIONS.map((region) => SIGNS.filter((one) => one.region === region).length)
  expect(perRegion).toEqual([7, 5, 5, 3, 3, 3, 5, 5])
  for (const { cue } of SIGNS) expect(cue.split(/[.!?]/).filter((part) => part.trim()).length).toBe(1)
  expect(formatSign(signNamed('kneesOut')!)).toBe('knees out')
  expect(formatSign(signNamed('wristBent')!)).toBe('wrist bent')
})
