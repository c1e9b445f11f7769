import { afterDraft, type DraftAction, type Drafting } from './roomDraft'

const EMPTY: Drafting = {
  draft: {
    name: 'Hall',
    plan: { widthM: 10, depthM: 8, instructor: { xM: 5, yM: 1 }, screens: [], doors: [], fans: [] },
    places: { a: { xM: 2, yM: 3, headingDeg: 0 } },
  },
  before: [],
}
const after = (...actions: DraftAction[]) => actions.reduce(afterDraft, EMPTY)

test('a bike lands on a quarter of a metre and never beyond the walls', () => {
  const moved = after({ kind: 'move', key: 'bike:a', byXM: 1.13, byYM: 0.6 })
  expect(moved.draft.places.a).toEqual({ xM: 3.25, yM: 3.5, headingDeg: 0 })
  const out = after({ kind: 'move', key: 'bike:a', byXM: -50, byYM: 50 })
  expect(out.draft.places.a).toMatchObject({ xM: 0.3, yM: 7.7 })
  expect(after({ kind: 'move', key: 'bike:none', byXM: 1, byYM: 1 })).toBe(EMPTY)
})

test('turned by steps, past the half turn to the other side', () => {
  expect(after({ kind: 'turn', key: 'bike:a', byDeg: -5 }).draft.places.a.headingDeg).toBe(-5)
  const round = Array.from({ length: 37 }, (): DraftAction => ({ kind: 'turn', key: 'bike:a', byDeg: 5 }))
  expect(after(...round).draft.places.a.headingDeg).toBe(-175)
})

test('a bike put in stands where there is room; all of them are distinguished', () => {
  const many = Array.from({ length: 20 }, (_, i): DraftAction => ({ kind: 'place', bikeId: `b${i}` }))
  const stands = Object.values(after(...many).draft.places)
  expect(stands).toHaveLength(21)
  for (const [i, one] of stands.entries())
    for (const other of stands.slice(i + 1))
      expect(Math.hypot(one.xM - other.xM, one.yM - other.yM)).toBeGreaterThanOrEqual(0.9)
})

test('screens, doors and fans are added, moved and taken out, twelve of a kind at most', () => {
  const two = after({ kind: 'add', what: 'screen' }, { kind: 'add', what: 'screen' })
  const moved = afterDraft(two, { kind: 'move', key: 'screen:1', byXM: -1, byYM: -20 })
  expect(moved.draft.plan.screens).toEqual([
    { xM: 5, yM: 4 },
    { xM: 4, yM: 0 },
  ])
  expect(afterDraft(moved, { kind: 'takeOut', key: 'screen:0' }).draft.plan.screens).toEqual([{ xM: 4, yM: 0 }])
  const many = Array.from({ length: 14 }, (): DraftAction => ({ kind: 'add', what: 'fan' }))
  expect(after(...many).draft.plan.fans).toHaveLength(12)
})

test('a smaller room holds everything within its walls; each step is undone, the last first', () => {
  const small = after({ kind: 'add', what: 'door' }, { kind: 'size', widthM: 4, depthM: 3 })
  expect(small.draft.plan.instructor).toEqual({ xM: 4, yM: 1 })
  expect(small.draft.places.a).toMatchObject({ xM: 2, yM: 2.7 })
  const once = afterDraft(small, { kind: 'undo' })
  expect([once.draft.plan.widthM, once.draft.plan.doors.length]).toEqual([10, 1])
  expect(afterDraft(once, { kind: 'undo' }).draft).toBe(EMPTY.draft)
  expect(afterDraft(EMPTY, { kind: 'undo' })).toBe(EMPTY)
})
