import type { CueAdvice } from '../../classes/watch/cue'
import { shareDifference } from '../../classes/watch/proportions'
import { signNamed } from '../../classes/watch/signs'
import {
  formatConsoleProposal,
  formatCueHistory,
  formatNote,
  formatPlanFault,
  formatPlanRemark,
  formatRoomCueResult,
  formatSetUpFirst,
} from './watch'

test('a note reads in one breath, with its side where it is on one', () => {
  expect(formatNote({ sign: 'kneesOut', side: 'left' })).toBe('knees out, left')
  expect(formatNote({ sign: 'toesDown', side: 'both' })).toBe('toes pointing down')
  expect(formatNote({ sign: 'felt', region: 'feltLowBack', side: 'both', score: 7 })).toBe('felt: low back 7 of 10')
  expect(formatNote({ sign: 'redFlag', region: 'sharp', side: 'right' })).toBe('red flag: sharp pain, right')
})

test('what another version noted is reported as it stands, never lost', () => {
  expect(formatNote({ sign: 'sparkles', side: 'both' })).toBe('sparkles')
  expect(formatNote({ sign: 'felt', region: 'feltTail', side: 'both' })).toBe('felt: something')
})

const say = (said: number, held: number, failed: number): CueAdvice => ({
  kind: 'say',
  sign: signNamed('kneesOut')!,
  said,
  held,
  failed,
})

test('what was stated before, and what came of it', () => {
  expect(formatCueHistory(say(0, 0, 0))).toBe('')
  expect(formatCueHistory(say(1, 1, 0))).toBe('Said once: held once.')
  expect(formatCueHistory(say(4, 1, 2))).toBe('Said 4 times: held once, failed twice, 1 not looked at again.')
})

test('a cue that failed three times: set-up first, then strength, and no strength where there is none', () => {
  const first = (sign: string) => formatSetUpFirst({ kind: 'setUpFirst', sign: signNamed(sign)!, failed: 3 })
  expect(first('pullingAway')).toBe(
    'Set-up first: bars: are they at their highest? Then strength: hip hinges with a stick along the back, and ' +
      'half-minute planks, three times a week.',
  )
  expect(first('locked')).toBe('Set-up first: seat height: it may be high.')
})

test('a cue to the room helped only where the interval leaves nothing out', () => {
  const result = (changed: number, of: number, other: number, others: number) => {
    const [concerned, rest] = [
      { changed, of },
      { changed: other, of: others },
    ]
    return formatRoomCueResult({ concerned, others: rest, ...shareDifference(concerned, rest) })
  }
  expect(result(9, 10, 1, 10)).toMatch(
    /^Changed in 9 of 10 it was meant for, and in 1 of 10 it was not: .* It helped\.$/,
  )
  expect(result(2, 3, 1, 3)).toMatch(/That may be chance\.$/)
  expect(result(2, 3, 0, 0)).toMatch(/nobody else was looked at again, so what changes by itself is not known\.$/)
})

test('consoles, plans and their faults in words', () => {
  expect(formatConsoleProposal({ bike: 7, sign: 'behindBeat', rpm: 68 })).toBe('7: 68 turns, behind the plan')
  expect(formatPlanFault({ line: 4, column: 'turns', text: 'fast' })).toBe(
    'Line 4: “fast” cannot stand under turns; the block was left out.',
  )
  expect(formatPlanFault({ line: 2, column: 'minutes', text: '' })).toBe(
    'Line 2: minutes is missing; the block was left out.',
  )
  expect(formatPlanRemark({ code: 'otherLength', planMin: 41.5, classMin: 45 })).toBe(
    'The blocks last 41.5 min, the class 45 min.',
  )
})
