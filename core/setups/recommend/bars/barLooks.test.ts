import type { Marks } from '../../../base/conventions'
import type { Evidence } from '../../../riders/evidence/registry'
import { barKey, failedBarMarks } from './barLooks'

test('a slide that nobody named failed at the mark where it is', () => {
  const now: Marks = { seatHeight: '9', seatSlide: 'D', barHeight: '7' }
  const looked: Evidence = { kind: 'elbows', seen: 'locked', at: now }
  const failed = failedBarMarks([looked], [now], now, '0')
  expect([...failed]).toEqual([barKey({ barHeight: '7', barSlide: '0' })])
  // A bike without a slide of the bars.
  expect([...failedBarMarks([looked], [now], now, undefined)]).toEqual([barKey({ barHeight: '7' })])
})
