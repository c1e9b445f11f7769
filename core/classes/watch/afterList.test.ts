import { afterList, isStrong, type ClassRecord } from './afterList'

const record = (id: string, memberId: string, sign: string, of: Partial<ClassRecord> = {}): ClassRecord => ({
  id,
  memberId,
  sign,
  region: '',
  score: null,
  cued: false,
  held: null,
  ...of,
})
const failed = (memberId: string, sign: string) => ({ memberId, sign, cued: true, held: false })

test('one list by urgency: red flags, felt by strength, failing cues, trials, notes, unchecked numbers', () => {
  const notes = [
    record('1', 'a', 'kneesOut', { cued: true, held: false }),
    record('2', 'b', 'felt', { region: 'feltLowBack', score: 3 }),
    record('3', 'c', 'felt', { region: 'feltHands', score: 7 }),
    record('4', 'd', 'redFlag', { region: 'sharp' }),
    record('5', 'e', 'rocking', { held: true }),
    record('6', 'f', 'shrugged'),
    record('7', 'g', 'felt', { region: 'feltHands', score: 0 }),
  ]
  const earlier = [failed('a', 'kneesOut'), failed('a', 'kneesOut'), failed('a', 'kneesOut')]
  const list = afterList({ notes, earlier, warmUp: ['h'], trialsDue: ['i'], plansDue: ['k'], moved: ['j'] })
  expect(list.map(({ kind, memberId }) => [kind, memberId])).toEqual([
    ['redFlag', 'd'],
    ['felt', 'c'],
    ['felt', 'b'],
    ['cueFailed', 'a'],
    ['trialDue', 'i'],
    ['planDue', 'k'],
    ['moved', 'j'],
    ['noted', 'f'],
    ['warmUp', 'h'],
  ])
  expect(list.map(isStrong)).toEqual([false, true, false, false, false, false, false, false, false])
})

test('failures of another rider, or of another cue, are not this one’s', () => {
  const notes = [record('1', 'a', 'kneesOut')]
  const earlier = [failed('b', 'kneesOut'), failed('b', 'kneesOut'), failed('b', 'kneesOut'), failed('a', 'rocking')]
  expect(afterList({ notes, earlier, warmUp: [], trialsDue: [], plansDue: [], moved: [] })).toMatchObject([
    { kind: 'noted' },
  ])
})

test('complaints from outside the floor are listed beside what was felt there, once a rider; red flags first', () => {
  const notes = [record('1', 'a', 'felt', { region: 'feltHands', score: 2 })]
  const complaints = [
    { id: 'c1', memberId: 'a', strength: 8, flagged: false },
    { id: 'c2', memberId: 'b', strength: 3, flagged: true },
  ]
  const list = afterList({ notes, earlier: [], warmUp: [], trialsDue: [], plansDue: [], moved: [], complaints })
  expect(
    list.map(({ kind, memberId, notes: own, complaints: told, score }) => [kind, memberId, own, told, score]),
  ).toEqual([
    ['redFlag', 'b', [], ['c2'], null],
    ['felt', 'a', ['1'], ['c1'], 8],
  ])
})
