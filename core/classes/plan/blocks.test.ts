import { BLOCKS } from '@/scripts/netloftHall'
import { beatsOf, blockAt, judgeRpm, judgeSign, planRemarks, rpmOf, totalMinutes, type Block } from './blocks'
import { MOVES, moveNamed } from './moves'

const block = (of: Partial<Block>): Block => ({ ...BLOCKS[0], ...of })

test('music sets the legs: 106 beats are 53 turns (common practice, no source)', () => {
  expect(rpmOf(106)).toBe(53)
  expect(beatsOf(53)).toBe(106)
  for (const rpm of [60, 90, 110]) expect(rpmOf(beatsOf(rpm))).toBe(rpm)
})

test('the block that runs: each minute of the class has one, none before and after', () => {
  expect(totalMinutes(BLOCKS)).toBe(45)
  expect(blockAt(BLOCKS, -0.1)).toBeNull()
  expect(blockAt(BLOCKS, 45)).toBeNull()
  expect([0, 5.9, 6, 13, 44.9].map((minute) => blockAt(BLOCKS, minute)?.name)).toEqual([
    'Wake the legs',
    'Wake the legs',
    'Flat road',
    'First climb',
    'Home',
  ])
  expect(blockAt([], 3)).toBeNull()
})

test('what is seen is judged by the block: tucked spine and heavy climb may be meant, not for knees that hurt', () => {
  expect(judgeSign('rounded', block({ spine: 'long' })).counts).toBe(true)
  expect(judgeSign('rounded', block({ spine: 'longAndTucked' }))).toEqual({ counts: false, why: 'asPlanned' })
  const climb = block({ rpm: 64, effort: 'hard' })
  expect(judgeSign('grinding', climb)).toEqual({ counts: false, why: 'asPlanned' })
  expect(judgeSign('grinding', climb, { kneeNotes: true })).toEqual({ counts: true, why: 'kneesUnderLoad' })
  expect(judgeSign('grinding', block({ rpm: 90 }))).toEqual({ counts: true, why: 'offPlan' })
  expect(judgeSign('kneesOut', climb).counts).toBe(true)
  expect(judgeSign('rounded', null).counts).toBe(true)
})

test('legs are on plan within a tenth', () => {
  expect([80, 81, 90, 99, 100].map((rpm) => judgeRpm(rpm, block({ rpm: 90 })))).toEqual([
    'behindBeat',
    'onPlan',
    'onPlan',
    'onPlan',
    'aheadOfBeat',
  ])
  expect(judgeRpm(50, null)).toBeNull()
})

test('lists what a plan lacks, and nothing for a good one', () => {
  expect(planRemarks(BLOCKS, 45)).toEqual([])
  expect(planRemarks([], 45)).toEqual([])
  const bad = [block({ effort: 'hard', rpm: 65, minutes: 8, name: 'Up' }), block({ effort: 'steady', minutes: 15 })]
  expect(planRemarks(bad, 45).map(({ code }) => code)).toEqual([
    'otherLength',
    'longSeated',
    'slowLong',
    'noEasyStart',
    'noEasyEnd',
  ])
})

test('too fast, too slow and heavy slow blocks in a row are remarked (common practice, no source)', () => {
  const easy = block({ effort: 'easy', minutes: 5 })
  const codes = (...middle: Block[]) =>
    planRemarks([easy, ...middle, easy], 10 + totalMinutes(middle)).map(({ code }) => code)
  expect(codes(block({ rpm: 110, minutes: 3 }))).toEqual([])
  expect(codes(block({ rpm: 112, minutes: 3 }))).toEqual(['tooFast'])
  expect(codes(block({ rpm: 104, posture: 'standing', minutes: 3 }))).toEqual(['tooFast'])
  expect(codes(block({ rpm: 58, minutes: 3, effort: 'steady' }))).toEqual(['tooSlow'])
  const climb = block({ rpm: 65, effort: 'hard', minutes: 4, posture: 'standing' })
  expect(codes(climb, climb)).toEqual(['slowInARow'])
  expect(codes(climb, easy, climb)).toEqual([])
})

test('every move has a right form and something gentler', () => {
  for (const { move, form, gentler } of MOVES) {
    expect(moveNamed(move)?.form).toBe(form)
    expect(gentler.length).toBeGreaterThan(10)
  }
  expect(moveNamed('flying')).toBeUndefined()
  expect(BLOCKS.filter(({ move }) => move && !moveNamed(move))).toEqual([])
})
