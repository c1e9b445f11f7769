import { daysBetween, limitEffects, limitIssue, LIMIT_KINDS, NEEDED, weeksOn, type Limit } from './limits'

const TODAY = '2026-12-01'
const limit = (fields: Partial<Limit> & Pick<Limit, 'kind'>): Limit => ({ since: '2026-10-01', ...fields })
const issue = (fields: Partial<Limit> & Pick<Limit, 'kind'>) => limitIssue(limit(fields), TODAY)

test('a limit without a real date, from the future or from too long ago is refused', () => {
  expect(issue({ kind: 'heart' })).toBeNull()
  expect(issue({ kind: 'heart', since: '2026-13-01' })).toBe('noDate')
  expect(issue({ kind: 'heart', since: '2026-02-30' })).toBe('noDate')
  expect(issue({ kind: 'heart', since: '2024-02-29' })).toBeNull()
  expect(issue({ kind: 'heart', since: '2026-12-02' })).toBe('future')
  expect(issue({ kind: 'heart', since: '1899-01-01' })).toBe('tooLongAgo')
})

test('days are counted as the calendar does, over leap years', () => {
  for (const [from, to] of [
    ['1999-12-31', '2000-03-01'],
    ['2023-02-28', '2024-03-01'],
    ['1920-01-01', '2026-12-01'],
  ])
    expect(daysBetween(from, to)).toBe((Date.parse(to) - Date.parse(from)) / 86_400_000)
})

test('each kind needs its details', () => {
  for (const kind of LIMIT_KINDS) expect(issue({ kind })).toBe(NEEDED[kind].length > 0 ? 'missing' : null)
  expect(issue({ kind: 'firstFoot', side: 'both' })).toBe('noSide')
  expect(issue({ kind: 'legDifference', side: 'left', mm: 80 })).toBe('outOfRange')
  expect(issue({ kind: 'legDifference', side: 'left', mm: 8 })).toBeNull()
})

test('weeks of a pregnancy count on from their day; past 42 weeks they are refused and end by themselves', () => {
  const pregnancy = limit({ kind: 'pregnancy', weeks: 20 })
  expect(weeksOn(pregnancy, TODAY)).toBe(28)
  expect(issue({ kind: 'pregnancy', weeks: 35 })).toBe('pastBirth')
  expect(limitEffects([pregnancy], TODAY).health).toEqual(['pregnant'])
  expect(limitEffects([pregnancy], '2027-04-01').health).toEqual([])
})

test('heart, a recent operation and pregnancy stop until a clinician’s word, and raise the bars after it too', () => {
  for (const [kind, upright] of [
    ['heart', 'heart'],
    ['operation', 'operation'],
    ['pregnancy', 'pregnant'],
  ] as const) {
    const one = limit({ kind, region: 'knee', weeks: 12 })
    expect(limitEffects([one], TODAY)).toMatchObject({ stop: one, upright })
    expect(limitEffects([{ ...one, clearedBy: 'Dr Amble' }], TODAY)).toMatchObject({ stop: null, upright })
  }
  const old = limit({ kind: 'operation', region: 'knee', since: '2020-01-01' })
  expect(limitEffects([old], TODAY)).toMatchObject({ health: [], stop: null })
  expect(limitEffects([old], TODAY).upright).toBeUndefined()
})

test('of several recent operations each needs its own word', () => {
  const [knee, hip] = (['knee', 'hip'] as const).map((region) => limit({ kind: 'operation', region }))
  expect(limitEffects([knee, { ...hip, clearedBy: 'Dr Amble' }], TODAY).stop).toEqual(knee)
  expect(limitEffects([{ ...knee, clearedBy: 'Dr Amble' }, hip], TODAY).stop).toEqual(hip)
})

test('the latest answer on riding elsewhere counts; ankles keep their sides', () => {
  const effects = limitEffects(
    [
      limit({ kind: 'rides', rides: 'none' }),
      limit({ kind: 'rides', rides: 'roadLow' }),
      limit({ kind: 'ankle', side: 'left' }),
    ],
    TODAY,
  )
  expect(effects).toMatchObject({ rides: 'roadLow', ankles: ['left'], health: [], stop: null })
})
