import { formatSuggestionRecord } from './suggestions'

const say = (count: number, stated: number, right: number) =>
  formatSuggestionRecord({ all: { count, stated, right, se: Math.sqrt((stated * (1 - stated)) / count) }, groups: [] })

test('a few set-ups are no record, and none is reported as none', () => {
  expect(say(0, 0, 0)).toBe('There are none so far; ten are needed.')
  expect(say(1, 0.5, 1)).toBe('There is one finished, checked set-up so far; ten are needed.')
  expect(say(9, 0.5, 1)).toMatch(/^There are 9 finished, checked set-ups so far/)
})

test('what chance alone would do is called as stated; what it would not, is not', () => {
  expect(say(50, 0.6, 0.5)).toMatch(/50 in 100 were right; 60 in 100 was said\. That is as often as stated/)
  expect(say(50, 0.6, 0.4)).toMatch(/less often than stated/)
  expect(say(50, 0.6, 0.8)).toMatch(/more often than stated/)
})
