import type { Evidence } from '@/core/riders/evidence/registry'
import { misSet } from '@/core/operations/requests/misSet'
import { formatMisSet } from '@/core/messages/setups/misSet'
import { HOLES_BIKE } from '@/core/testing/meanRider'
import type { Row } from '../steps/flow'
import { isSuspect, misSetQuestion, relocateReadings } from './misSet'

const rowsOf = (...evidence: Evidence[]): Row[] => evidence.map((row, i) => ({ id: String(i), row }))
const at = { seatHeight: '8', seatSlide: 'D', barHeight: '5', barSlide: '0' }
const knee = (deg: number, where = at): Evidence => ({ kind: 'kneeAngle', deg, by: 'goniometer', at: where })
const earlier = [90, 45].map((agoDays) => ({
  bikeType: HOLES_BIKE,
  evidence: [knee(30), knee(31), knee(29)],
  agoDays,
}))
const known = { bikeType: HOLES_BIKE, history: earlier }

test('nothing is proposed before the rider is looked at here, nor of one never looked at before', () => {
  expect(misSetQuestion(known, rowsOf({ kind: 'set', at }), at)).toBeNull()
  const elsewhere = { ...at, seatHeight: '6' }
  expect(misSetQuestion(known, rowsOf(knee(30, elsewhere), { kind: 'set', at }), at)).toBeNull()
  expect(misSetQuestion({ ...known, history: [] }, rowsOf({ kind: 'set', at }, knee(44)), at)).toBeNull()
})

test('a knee as ever raises no suspicion, one a whole mark off does; taken there, it is as ever again', () => {
  const seen = (...rows: Evidence[]) => misSet(misSetQuestion(known, rowsOf({ kind: 'set', at }, ...rows), at)!)
  expect(isSuspect(seen(knee(30), knee(31)))).toBe(false)
  const found = seen(knee(40), knee(41))
  expect(isSuspect(found)).toBe(true)
  const [lower] = found.causes.flatMap((c) => (c.code === 'offByOne' && c.axis === 'seatHeight' ? [c.truly] : []))
  expect(lower).toBe('7')
  const rows = rowsOf({ kind: 'set', at }, knee(40), knee(41))
  const moved = relocateReadings(rows, { seatHeight: lower }).map(({ row }, i) => ({ id: `new${i}`, row }))
  expect(isSuspect(misSet(misSetQuestion(known, moved, { ...at, seatHeight: lower })!))).toBe(false)
})

test('nothing is mis-set only above one half; below it the post is read first, in the words of a look', () => {
  const causes = [
    { code: 'asSet', chance: 0.4, say: '' },
    { code: 'postSlipped', mm: 12, chance: 0.35, say: '' },
    { code: 'otherShoe', mm: 8, chance: 0.25, say: '' },
  ] as const
  expect(isSuspect({ causes, sentence: '' })).toBe(true)
  expect(isSuspect({ causes: [{ ...causes[0], chance: 0.51 }, causes[1]], sentence: '' })).toBe(false)
  expect(formatMisSet(HOLES_BIKE, causes)).toBe(
    'Not clear: read the post first. Perhaps the post has slipped, by about 12 mm, 35 in 100.',
  )
  expect(formatMisSet(HOLES_BIKE, [{ ...causes[0], chance: 0.8 }, causes[1]])).toMatch(
    /^Nothing is mis-set: .*80 in 100/,
  )
  expect(formatMisSet(HOLES_BIKE, [{ ...causes[1], chance: 0.7 }, causes[0]])).toMatch(/^The post has slipped/)
})

test('looks move with the saddle they were taken on, each in the place of its own row, and reasons stay', () => {
  const rows = rowsOf({ kind: 'stature', mm: 1700 }, { kind: 'set', at, meant: 'wish' }, knee(40))
  expect(relocateReadings(rows, { seatHeight: '7' })).toEqual([
    { old: rows[1], row: { kind: 'set', at: { ...at, seatHeight: '7' }, meant: 'wish' } },
    { old: rows[2], row: knee(40, { ...at, seatHeight: '7' }) },
  ])
  // Numbers told and never set here: they are now.
  expect(relocateReadings(rowsOf(knee(40)), { seatHeight: '7' })[0]).toEqual({
    old: undefined,
    row: { kind: 'set', at: { seatHeight: '7' } },
  })
})
