import { CAUSES } from '../model/causeTable'
import { KIT_ADVICE, kitAdviceFor } from './kit'

test('advice of the heaviest likely cause comes first, each once, three at most; none of unlikely causes', () => {
  const advice = kitAdviceFor([
    { cause: 'heavyLoad', weight: 0.05 },
    { cause: 'handHabit', weight: 0.2 },
    { cause: 'kit', weight: 0.5 },
  ])
  expect(advice.map(({ about }) => about)).toEqual(['Shorts', 'Underneath', 'Seams'])
  expect(kitAdviceFor([{ cause: 'heavyLoad', weight: 0.4 }]).map(({ about }) => about)).toEqual(['Knees'])
  expect(kitAdviceFor([{ cause: 'kit', weight: 0.05 }])).toEqual([])
  expect(kitAdviceFor([])).toEqual([])
})

test('every advice is for causes of the table', () => {
  for (const { causes } of KIT_ADVICE) expect(causes.filter((cause) => !CAUSES.includes(cause))).toEqual([])
})
