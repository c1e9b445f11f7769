import { EMPTY_SHEET, parseFitSheet } from './parseFitSheet'

const good = {
  ...EMPTY_SHEET,
  saddleHeightMm: '720',
  setbackMm: '5 cm',
  reachMm: '560',
  stackMm: '700',
  crankMm: '172,5',
}

test('a sheet is read in any spelling, its reach brought from the nose to the seat point', () => {
  const parsed = parseFitSheet(good, 'metric')
  expect(parsed).toEqual({
    outcome: 'read',
    from: {
      lengths: { saddleHeightMm: 720, setbackMm: 50, reachMm: 710, stackMm: 700 },
      crankMm: 172.5,
      noseAheadMm: 150,
    },
  })
})

test('what is missing is named, a slip of the unit needs a confirmation', () => {
  expect(parseFitSheet({ ...good, stackMm: '', crankMm: 'long' }, 'metric')).toEqual({
    outcome: 'unread',
    wrong: ['stackMm', 'crankMm'],
  })
  expect(parseFitSheet({ ...good, saddleHeightMm: '72' }, 'metric')).toMatchObject({
    outcome: 'asks',
    doubts: [{ length: 'saddleHeightMm', meantMm: 720, unit: 'cm' }],
  })
})
