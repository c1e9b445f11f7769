import { isRecurring, PLAN_KINDS, planIssue, planState, type Plan, type PlanFacts } from './plan'

const TODAY = '2026-03-10'
const FACTS: PlanFacts = { today: TODAY, rides: 0, leftMm: 20, isPregnant: true, lookedOn: [] }
const STARTER: Plan = { kind: 'starter', lineId: 'sorrel', to: '7', afterRides: 3 }
const PROMISE: Plan = { kind: 'promise', due: '2026-03-12', words: 'Look at the left knee' }
const state = (plan: Plan, facts: Partial<PlanFacts> = {}) => planState(plan, { ...FACTS, ...facts })

test('a starter waits for its rides, is due then, and is over once the seat is up or the numbers are gone', () => {
  expect(state(STARTER, { rides: 1 })).toEqual({ state: 'waiting', left: 2 })
  expect(state(STARTER, { rides: 3 })).toEqual({ state: 'due', late: 0 })
  expect(state(STARTER, { rides: 5 })).toEqual({ state: 'due', late: 2 })
  expect(state(STARTER, { rides: 3, leftMm: 0 })).toEqual({ state: 'over' })
  expect(state(STARTER, { rides: 3, leftMm: -20 })).toEqual({ state: 'over' })
  expect(state(STARTER, { rides: 3, leftMm: null })).toEqual({ state: 'over' })
})

test('a promise is due from its day on, across the end of February in a leap year', () => {
  expect(state(PROMISE)).toEqual({ state: 'waiting', left: 2 })
  expect(state(PROMISE, { today: '2026-03-12' })).toEqual({ state: 'due', late: 0 })
  expect(state({ ...PROMISE, due: '2028-03-01' }, { today: '2028-02-28' })).toEqual({ state: 'waiting', left: 2 })
})

test('what recurs counts from its day or its latest look; a re-check comes six weeks on, while pregnant', () => {
  const recheck: Plan = { kind: 'recheck', since: '2026-01-27' }
  expect(state(recheck)).toEqual({ state: 'due', late: 0 })
  expect(state(recheck, { lookedOn: ['2026-02-27'] })).toEqual({ state: 'waiting', left: 31 })
  expect(state(recheck, { isPregnant: false })).toEqual({ state: 'over' })
  expect(state({ kind: 'cleats', since: '2025-09-10' })).toEqual({ state: 'due', late: 1 })
  expect(state({ kind: 'shoes', since: '2025-09-10' })).toMatchObject({ state: 'waiting' })
  expect(PLAN_KINDS.filter(isRecurring)).toEqual(['recheck', 'cleats', 'shoes'])
})

test('a plan without its details or with an impossible day is refused; one of an archive without them is over', () => {
  expect(planIssue(PROMISE, TODAY)).toBeNull()
  expect(planIssue({ ...PROMISE, words: '  ' }, TODAY)).toBe('missing')
  expect(planIssue({ kind: 'promise', words: 'x' }, TODAY)).toBe('missing')
  expect(planIssue({ ...PROMISE, due: '2026-02-30' }, TODAY)).toBe('noDate')
  expect(planIssue({ ...PROMISE, due: '2026-03-09' }, TODAY)).toBe('past')
  expect(planIssue({ ...PROMISE, due: '2036-03-09' }, TODAY)).toBe('tooFar')
  expect(planIssue({ kind: 'cleats', since: '2026-03-11' }, TODAY)).toBe('future')
  expect(planIssue({ kind: 'shoes', since: '2001-03-11' }, TODAY)).toBe('tooFar')
  expect(state({ kind: 'starter', to: '7' })).toEqual({ state: 'over' })
})
