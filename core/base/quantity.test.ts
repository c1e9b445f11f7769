import { parseQuantity } from './quantity'

/** Locales that write a decimal comma, a point, a true minus (U+2212) or a narrow space between thousands. */
const LOCALES = ['en-GB', 'de-DE', 'nb-NO', 'fr-FR', 'sv-SE', 'fi-FI', 'pt-BR', 'pl-PL']

test.each(LOCALES)('reads a number as %s writes it', (locale) => {
  // Unicode CLDR by way of Intl: how these languages write numbers.
  for (const value of [27.5, -3.25, 0.5, 60])
    expect(parseQuantity(new Intl.NumberFormat(locale).format(value), '°')).toBe(value)
})

test.each(['fr-FR', 'nb-NO', 'sv-SE', 'pl-PL'])('reads the spaced thousands of %s', (locale) => {
  const written = new Intl.NumberFormat(locale, { useGrouping: 'always' as never }).format(12345.5)
  expect(parseQuantity(written, 's')).toBe(12345.5)
})

test('reads the unit that was typed', () => {
  expect(parseQuantity('2 cm', 'mm')).toBe(20)
  expect(parseQuantity('2,5cm', 'mm')).toBe(25)
  expect(parseQuantity('1 in', 'mm')).toBe(25.4)
  expect(parseQuantity('750 cm', 'm')).toBe(7.5)
  expect(parseQuantity('7,5', 'm')).toBe(7.5)
  expect(parseQuantity('7,5 m', 'm')).toBe(7.5)
  expect(parseQuantity('33°', '°')).toBe(33)
  expect(parseQuantity('20 min', 'min')).toBe(20)
  expect(parseQuantity('90 s', 's')).toBe(90)
})

test('rejects what could be read in two ways, and what is no number', () => {
  for (const typed of ['', ' ', '1,234.5', '1.234,5', '27,5,1', 'x', '2 cm', '--2', '1e3', '12 34'])
    expect(parseQuantity(typed, '°')).toBeNull()
  expect(parseQuantity('20 s', 'mm')).toBeNull()
})
