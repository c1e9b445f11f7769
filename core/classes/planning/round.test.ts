import { isRoundOffered, roundSteps, type Newcomer } from './round'

const one = (id: string, more: Partial<Newcomer> = {}): Newcomer => ({
  id,
  arrivesMin: 0,
  isSet: false,
  isChecked: false,
  wrong: null,
  ...more,
})

test('first everybody by landmark as they come, then those most likely wrong', () => {
  const steps = roundSteps([
    one('late', { arrivesMin: -5 }),
    one('early', { arrivesMin: -20 }),
    one('sure', { isSet: true, wrong: 0.1 }),
    one('unsure', { isSet: true, wrong: 0.6 }),
  ])
  expect(steps).toEqual([
    { id: 'early', act: 'setByLandmark' },
    { id: 'late', act: 'setByLandmark' },
    { id: 'unsure', act: 'check' },
    { id: 'sure', act: 'check' },
  ])
})

test('who was looked at is done; of whom nothing is known comes before who has a chance', () => {
  expect(roundSteps([one('done', { isSet: true, isChecked: true, wrong: 0.9 })])).toEqual([])
  const steps = roundSteps([one('a', { isSet: true, wrong: 0.9 }), one('b', { isSet: true })])
  expect(steps.map(({ id }) => id)).toEqual(['b', 'a'])
})

test('a round is offered for many newcomers, and sooner where the queue runs past the start', () => {
  const queue = (count: number, toMin: number) => Array.from({ length: count }, () => ({ need: 'new' as const, toMin }))
  expect([1, 3, 4].map((count) => isRoundOffered(queue(count, -2)))).toEqual([false, false, true])
  expect([1, 2, 3].map((count) => isRoundOffered(queue(count, 4)))).toEqual([false, true, true])
  expect(isRoundOffered([{ need: 'translate', toMin: 9 }])).toBe(false)
})
