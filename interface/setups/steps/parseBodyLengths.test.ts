import { parseBodyLengths } from './parseBodyLengths'

test('stature and inseam are read in any spelling, and either may be left out', () => {
  expect(parseBodyLengths({ stature: "5'8", inseam: '83' }, 'metric')).toEqual({
    statureMm: 1727,
    inseamMm: 830,
    wrong: null,
    trouble: '',
    rare: false,
  })
  expect(parseBodyLengths({ stature: '', inseam: '' }, 'metric')).toMatchObject({
    statureMm: null,
    inseamMm: null,
    trouble: '',
  })
  expect(parseBodyLengths({ stature: '68', inseam: '' }, 'imperial').statureMm).toBe(1727)
})

test('what cannot be is refused in words, in the units of the device', () => {
  expect(parseBodyLengths({ stature: '1700', inseam: '' }, 'metric')).toMatchObject({
    wrong: 'stature',
    trouble: 'A stature of 1700 cm cannot be; 100 cm to 250 cm can.',
  })
  expect(parseBodyLengths({ stature: '', inseam: '12 in' }, 'imperial').trouble).toBe(
    'An inseam of 1′0″ cannot be; 1′3½″ to 4′3″ can.',
  )
  expect(parseBodyLengths({ stature: '110', inseam: '120' }, 'metric')).toMatchObject({
    wrong: 'inseam',
    trouble: 'An inseam cannot be as long as the whole body.',
  })
  expect(parseBodyLengths({ stature: '170', inseam: '8o' }, 'metric')).toMatchObject({
    wrong: 'inseam',
    trouble: '“8o” is not a length. Write 172, 1.72 m or 5′8″.',
  })
  expect(parseBodyLengths({ stature: "5'13", inseam: '' }, 'imperial').trouble).toMatch(/twelve inches/)
})

test('an inseam of 60 % of the stature is rare: it needs a confirmation and is not refused', () => {
  expect(parseBodyLengths({ stature: '172', inseam: '103' }, 'metric')).toMatchObject({ trouble: '', rare: true })
  expect(parseBodyLengths({ stature: '172', inseam: '83' }, 'metric').rare).toBe(false)
})
