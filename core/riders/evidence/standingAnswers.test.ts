import type { Evidence } from './registry'
import { isPregnant, latestAnswer, standingAnswers, withPregnancy } from './standingAnswers'

const regular: Evidence = { kind: 'rider', experience: 'regular', pedal: 'cleat', soleMm: 21 }
const at = (agoDays: number, ...evidence: Evidence[]) => ({ agoDays, evidence })

test('shoes and pedal side stand for half a year, then they are due again', () => {
  expect(standingAnswers([at(180, regular)])).toEqual([regular])
  expect(standingAnswers([at(181, regular)])).toEqual([])
})

test('what passes is due again after six weeks: a sore back, a pregnancy, being new', () => {
  for (const row of [
    { ...regular, backSore: true },
    { ...regular, pregnant: true },
    { ...regular, experience: 'new' as const },
  ]) {
    expect(standingAnswers([at(42, row)])).toEqual([row])
    expect(standingAnswers([at(43, row)])).toEqual([])
  }
})

test('the latest answer counts, whatever the order, and readings of the body are never carried', () => {
  const wish: Evidence = { kind: 'wish', posture: 'low' }
  const build: Evidence = { kind: 'build', torso: 'long' }
  const older = at(100, { ...regular, pedal: 'cage' }, wish, build, { kind: 'stature', mm: 1700 })
  expect(standingAnswers([older, at(10, regular)])).toEqual([regular, wish, build])
  expect(standingAnswers([at(10, regular), older])).toEqual([regular, wish, build])
  expect(latestAnswer([older, at(300, regular)], 'rider')).toEqual({ row: { ...regular, pedal: 'cage' }, agoDays: 100 })
  expect(latestAnswer([], 'rider')).toBeNull()
})

test('a pregnancy holds until somebody states that it is over; an answer without it changes nothing', () => {
  const told = at(100, { ...regular, pregnant: true })
  expect(isPregnant([told])).toBe(true)
  expect(isPregnant([told, at(10, regular)])).toBe(true)
  expect(isPregnant([at(10, { ...regular, pregnant: false }), told])).toBe(false)
  expect(isPregnant([told, at(200, { ...regular, pregnant: false })])).toBe(true)
  expect(isPregnant([at(280, { ...regular, pregnant: true })])).toBe(false)
  // Also within one set-up: what was answered after it leaves it standing.
  expect(isPregnant([at(10, { ...regular, pregnant: true }, regular)])).toBe(true)
  expect(isPregnant([at(10, { ...regular, pregnant: true }, { ...regular, pregnant: false })])).toBe(false)
  expect(withPregnancy(regular, [told])).toEqual({ ...regular, pregnant: true })
  expect(withPregnancy({ ...regular, pregnant: false }, [told])).toEqual({ ...regular, pregnant: false })
})
