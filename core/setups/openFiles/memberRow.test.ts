import fc from 'fast-check'
import { TYPES } from '@/scripts/netloftHall'
import { axesOf } from '../../bikes/bike/bike'
import { formatFileFault } from '../../messages/studio/files'
import { CERTAINTIES, PURPOSES } from '../register/entry'
import { positionsOf } from '../../bikes/scale/scale'
import { COLUMN_HEADING, guessColumns } from './columns'
import { guarded, MEMBER_COLUMNS, plainLabel, readMemberRow, readStature, type MemberCells } from './memberRow'

const types = Object.values(TYPES)
const known = { types, normalizeName: (typed: string) => typed.trim(), maxNameLength: 120, today: '2026-11-26' }
const cells: MemberCells = {
  name: 'Ada Marram',
  bikeType: 'Sorrel',
  seatHeight: '7',
  seatSlide: 'C',
  barHeight: '5',
  barSlide: '2',
}
const faultsOf = (changed: MemberCells) => {
  const read = readMemberRow({ ...cells, ...changed }, known)
  return read.outcome === 'faulty' ? read.faults.map((cell) => formatFileFault({ line: 4, cell })) : []
}

test('a line is read: who, on what, and what is not stated is taken as reported and usual', () => {
  expect(readMemberRow(cells, known)).toEqual({
    outcome: 'read',
    memberId: null,
    name: 'Ada Marram',
    details: {},
    numbers: {
      type: TYPES.sorrel,
      purpose: 'usual',
      marks: { seatHeight: '7', seatSlide: 'C', barHeight: '5', barSlide: '2' },
      certainty: 'told',
      footwear: {},
      since: null,
    },
  })
  expect(readMemberRow({ name: 'Ada Marram' }, known)).toMatchObject({ outcome: 'read', numbers: null })
})

test('a first and a last name are a name; a name of its own goes before both', () => {
  expect(readMemberRow({ firstName: ' Ada ', lastName: 'Marram' }, known)).toMatchObject({ name: 'Ada Marram' })
  expect(readMemberRow({ lastName: 'Marram' }, known)).toMatchObject({ name: 'Marram' })
  expect(readMemberRow({ name: 'Ada M.', firstName: 'Ada', lastName: 'Marram' }, known)).toMatchObject({
    name: 'Ada M.',
  })
})

test('where the studio has one type, numbers need not name it; where it has more, they do', () => {
  const one = { ...known, types: [TYPES.sorrel] }
  expect(readMemberRow({ ...cells, bikeType: '' }, one)).toMatchObject({ numbers: { type: TYPES.sorrel } })
  expect(readMemberRow({ name: 'Ada Marram' }, one)).toMatchObject({ numbers: null })
  expect(faultsOf({ bikeType: '' })).toHaveLength(1)
})

// The inch is 25.4 mm exactly (international yard and pound agreement, 1959): 5 ft 6 in = 66 × 25.4 mm.
test.each([
  ['168', 1680],
  ['168,5 cm', 1685],
  ['1,68', 1680],
  ['1.68 m', 1680],
  ['1680', 1680],
  ['66', 1676],
  [`5'6"`, 1676],
  ['5′6″', 1676],
  ['37', null],
  ['2.6', null],
  ['900', null],
  ['tall', null],
  ['', null],
])('a height as lists have it: %p', (typed, mm) => {
  expect(readStature(typed)).toBe(mm)
})

test.each([
  ['7½', '7.5'],
  ['7,5', '7.5'],
  ['−2', '-2'],
  ['½', '0.5'],
  ['C', 'C'],
])('a label as people write it: %p', (typed, plain) => {
  expect(plainLabel(typed)).toBe(plain)
})

test.each([
  [{ name: ' ' }, ['Line 4, name: empty.']],
  [{ name: 'x'.repeat(121) }, ['Line 4, name: longer than 120 letters.']],
  [{ bikeType: '' }, ['Line 4, bike type: numbers belong to a type of bike, and none is named.']],
  [
    { bikeType: 'Thistle' },
    [expect.stringMatching(/^Line 4, bike type: the studio has no type called Thistle; it has /)],
  ],
  [{ seatHeight: '77' }, [expect.stringMatching(/^Line 4, seat height: Sorrel has no 77 here; the nearest /)]],
  [{ seatSlide: '' }, ['Line 4, seat slide: empty, and Sorrel has one.']],
  [
    { bikeType: 'Bracken', seatHeight: 'J', seatSlide: '1', barHeight: '4', barSlide: '2' },
    ['Line 4, bar slide: Bracken has none; leave it empty.'],
  ],
  [{ purpose: 'sunday' }, ['Line 4, purpose: “sunday” is none of usual, upright, starter and road.']],
  [{ soleMm: '1.2' }, ['Line 4, sole mm: 1.2 mm is no sole. If centimetres are meant, write 1.2 cm.']],
  [{ soleMm: '120' }, ['Line 4, sole mm: thicker than any sole.']],
  [{ soleMm: 'thick' }, ['Line 4, sole mm: not a length; write 12, 12 mm or 1.2 cm.']],
  [{ since: '23/11/2026' }, ['Line 4, since: not a date; write 2026-11-23.']],
  [{ since: '2026-02-29' }, ['Line 4, since: not a date; write 2026-11-23.']],
  [{ since: '2031-01-01' }, ['Line 4, since: a day that has not come yet.']],
  [{ email: 'ada at home' }, ['Line 4, e-mail: not an e-mail address.']],
  [{ memberNumber: '7'.repeat(41) }, ['Line 4, member number: longer than 40 letters.']],
  [{ statureMm: '16' }, [expect.stringMatching(/^Line 4, body height: not a height of an adult/)]],
  [{ memberId: 'NO SUCH' }, ['Line 4, member id: not an id; leave it empty for somebody new.']],
] as const)('told by line and column: %j', (changed, said) => {
  expect(faultsOf(changed)).toEqual(said)
})

test('every fault of a line is reported, not the first alone; what is right is not', () => {
  expect(faultsOf({ seatHeight: '99', barHeight: '99', since: 'soon', soleMm: '1.2 cm' })).toHaveLength(3)
  expect(faultsOf({ soleMm: '1.2 cm', since: '2024-02-29', pedal: 'Cleat', certainty: 'MEASURED' })).toEqual([])
})

test('headings are recognised in our words and in others, each once; the rest is left to the user', () => {
  expect(guessColumns(MEMBER_COLUMNS.map((column) => COLUMN_HEADING[column]))).toEqual([...MEMBER_COLUMNS])
  expect(guessColumns(['Rider', 'Saddle Height', 'saddle fore-aft', 'Handlebar', 'Date', 'Locker', 'Name'])).toEqual([
    null,
    'seatHeight',
    'seatSlide',
    'barHeight',
    'since',
    null,
    'name',
  ])
})

test.each([
  [
    ['Member', 'Height'],
    ['name', 'statureMm'],
  ],
  [
    ['Member', 'Height', 'Slide', 'Bars'],
    ['name', 'seatHeight', 'seatSlide', 'barHeight'],
  ],
  [
    ['Member', 'Height', 'Saddle', 'Slide'],
    ['name', 'statureMm', 'seatHeight', 'seatSlide'],
  ],
  [
    ['No', 'First name', 'Surname', 'E-Mail'],
    ['memberNumber', 'firstName', 'lastName', 'email'],
  ],
])('headings %j', (headings, columns) => {
  expect(guessColumns(headings)).toEqual(columns)
})

test('a cell that a spreadsheet would reckon is made plain, numbers are left; read again it is what it was', () => {
  expect(guarded('=HYPERLINK("x")')).toBe(`'=HYPERLINK("x")`)
  expect(guarded('-2.5')).toBe('-2.5')
  // Wide signs are taken for the same by some.
  for (const wide of ['＝1+1', '＋1', '－1', '＠SUM']) {
    expect(guarded(wide)).toBe(`'${wide}`)
    expect(readMemberRow({ name: guarded(wide) }, known)).toMatchObject({ outcome: 'read', name: wide })
  }
  const plain = fc.string({ minLength: 1, maxLength: 40 })
  const name = fc
    .oneof(
      plain,
      plain.map((text) => `=${text}`),
      plain.map((text) => `'=${text}`),
    )
    .filter((text) => text.trim() === text)
  fc.assert(
    fc.property(name, (text) => {
      expect(guarded(text)).not.toMatch(/^[=@\t\r]/)
      const read = readMemberRow({ name: guarded(text) }, known)
      expect(read).toMatchObject({ outcome: 'read', name: text })
    }),
  )
})

test('what is written of any numbers is read as the same numbers', () => {
  const numbers = fc.constantFrom(...types).chain((type) =>
    fc.record({
      type: fc.constant(type),
      marks: fc.record(
        Object.fromEntries(
          axesOf(type).map((axis) => [
            axis,
            fc.constantFrom(...positionsOf(type.axes[axis]!.scale).map(({ label }) => label)),
          ]),
        ),
      ),
      purpose: fc.constantFrom(...PURPOSES),
      certainty: fc.constantFrom(...CERTAINTIES),
    }),
  )
  fc.assert(
    fc.property(numbers, ({ type, marks, purpose, certainty }) => {
      const written = Object.fromEntries(
        Object.entries({ name: 'Ada', bikeType: type.name, purpose, certainty, ...marks }).map(([key, value]) => [
          key,
          guarded(value),
        ]),
      )
      expect(readMemberRow(written, known)).toMatchObject({ outcome: 'read', numbers: { marks, purpose, certainty } })
    }),
  )
})
