import fc from 'fast-check'
import {
  afterEntries,
  isOpen,
  lastLooks,
  resultOfRoomCue,
  type ClassEntry,
  type ClassState,
  type MadeEntry,
} from './classState'

const EMPTY: ClassState = { notes: [], looks: [], cues: [], moves: [] }
const note = (id: string, memberId: string, sign: string, atMs: number): MadeEntry => ({
  id,
  atMs,
  entry: { op: 'addNote', memberId, bikeId: `bike-${memberId}`, sign, side: 'both' },
})
const held = (noteId: string, atMs: number, changed: boolean | null): MadeEntry => ({
  id: `${noteId}-${atMs}`,
  atMs,
  entry: { op: 'changeNote', noteId, change: { held: changed } },
})

test('notes are stored once, grow clear, hold, and go when taken back', () => {
  const first = note('n', 'a', 'kneesOut', 1)
  const state = afterEntries(EMPTY, [
    first,
    first,
    { id: 'c', atMs: 2, entry: { op: 'changeNote', noteId: 'n', change: { strength: 'clear', cued: true } } },
  ])
  expect(state.notes).toMatchObject([{ id: 'n', region: 'knees', strength: 'clear', cued: true, held: null }])
  expect(state.notes.every(isOpen)).toBe(true)
  const changed = afterEntries(state, [held('n', 9, true)])
  expect(changed.notes[0]).toMatchObject({ held: true, heldAtMs: 9 })
  expect(changed.notes.filter(isOpen)).toEqual([])
  const gone = { id: 'w', atMs: 3, entry: { op: 'withdrawNote', noteId: 'n' } } as const
  expect(afterEntries(changed, [gone, gone, held('n', 12, false)])).toEqual(EMPTY)
})

test('what the server sent and what is still on the device meet in one state, in any pieces it comes', () => {
  const all: MadeEntry[] = [
    note('1', 'a', 'kneesOut', 1),
    note('2', 'b', 'rocking', 2),
    held('1', 4, false),
    { id: '3', atMs: 5, entry: { op: 'addLook', classId: 'k', memberId: 'b', bikeId: 'bike-b' } },
    { id: '4', atMs: 6, entry: { op: 'withdrawNote', noteId: '2' } },
    held('1', 7, true),
  ]
  const whole = afterEntries(EMPTY, all)
  fc.assert(
    fc.property(fc.integer({ min: 0, max: all.length }), fc.integer({ min: 0, max: all.length }), (told, from) => {
      // Everything from before `told` on is written over it once more.
      const over = all.slice(Math.min(told, from))
      expect(afterEntries(afterEntries(EMPTY, all.slice(0, told)), over)).toEqual(whole)
    }),
  )
})

test('second looks count by when they were taken, in whatever order they arrive, also one that was taken back', () => {
  const looks = [held('n', 4, false), held('n', 7, true), held('n', 9, null), held('n', 11, false)]
  const noted = afterEntries(EMPTY, [note('n', 'a', 'kneesOut', 1)])
  fc.assert(
    fc.property(fc.shuffledSubarray(looks, { minLength: 1 }), (arrived) => {
      const latest = arrived.reduce((a, b) => (b.atMs > a.atMs ? b : a))
      const { change } = latest.entry as Extract<ClassEntry, { op: 'changeNote' }>
      expect(afterEntries(noted, arrived).notes[0]).toMatchObject({ held: change.held, heldAtMs: latest.atMs })
    }),
  )
  // What else a late change says is taken all the same; a look taken back is none.
  const late = afterEntries(noted, [
    held('n', 9, null),
    { id: 'c', atMs: 5, entry: { op: 'changeNote', noteId: 'n', change: { cued: true, held: true } } },
  ])
  expect(late.notes[0]).toMatchObject({ cued: true, held: null, heldAtMs: 9 })
  expect([...lastLooks(late)]).toEqual([['a', 1]])
})

test('a look is a note, a second look at one, or a look alone', () => {
  const state = afterEntries(EMPTY, [
    note('1', 'a', 'kneesOut', 10),
    held('1', 30, true),
    note('2', 'b', 'rocking', 12),
    { id: '3', atMs: 50, entry: { op: 'addLook', classId: 'k', memberId: 'c', bikeId: 'bike-c' } },
  ])
  expect([...lastLooks(state)].sort()).toEqual([
    ['a', 30],
    ['b', 12],
    ['c', 50],
  ])
})

test('a cue to the room is judged by second looks after it at notes from before it, apart for whom it met', () => {
  const cue: MadeEntry = {
    id: 'q',
    atMs: 100,
    entry: { op: 'addRoomCue', classId: 'k', sign: 'toesDown', cue: 'x', concerned: ['a', 'b'] },
  }
  const before = afterEntries(EMPTY, [
    note('1', 'a', 'toesDown', 10),
    note('2', 'b', 'toesDown', 11),
    note('3', 'c', 'shrugged', 12),
    note('4', 'a', 'shrugged', 13),
    held('3', 50, false),
    cue,
  ])
  expect(resultOfRoomCue(before, before.cues[0])).toBeNull()
  const after = afterEntries(before, [
    held('1', 150, true),
    held('2', 151, false),
    held('3', 152, false),
    held('4', 153, true),
    note('5', 'b', 'toesDown', 200),
    held('5', 210, true),
  ])
  // The second note on a rider it concerned is not one it did not concern; a note from after it counts for nothing.
  expect(resultOfRoomCue(after, after.cues[0])).toMatchObject({
    concerned: { changed: 1, of: 2 },
    others: { changed: 0, of: 1 },
  })
})
