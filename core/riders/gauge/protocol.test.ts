import { gaugeAfter, NO_GAUGE, parseGaugeEvent, meanReading, type GaugeAction, type GaugeState } from './protocol'

const reading = (deg: number, more: object = {}): GaugeAction => ({
  kind: 'reading',
  seq: 1,
  deg,
  side: 'left',
  axis: 'knee',
  batteryPct: 80,
  ...more,
})
const after = (...actions: GaugeAction[]): GaugeState => actions.reduce(gaugeAfter, NO_GAUGE)
const hold = (...degs: number[]): GaugeAction[] => [
  { kind: 'hold' },
  ...degs.map((d) => reading(d)),
  { kind: 'release' },
]

test('a line is read as documented, and nothing else is', () => {
  const line = '{"seq":3,"deg":31.4,"side":"left","axis":"knee","batteryPct":80}'
  expect(parseGaugeEvent('reading', line)).toEqual(reading(31.4, { seq: 3 }))
  expect(parseGaugeEvent('lost', '{"seq":4}')).toEqual({ kind: 'lost', seq: 4 })
  for (const [event, data] of [
    ['reading', 'not json'],
    ['reading', 'null'],
    ['reading', '{"seq":1,"deg":900,"side":"left","axis":"knee"}'],
    ['reading', '{"seq":1,"deg":"31","side":"left","axis":"knee"}'],
    ['reading', '{"seq":1,"deg":31,"side":"both","axis":"knee"}'],
    ['other', '{"seq":1}'],
  ])
    expect(parseGaugeEvent(event, data)).toBeNull()
})

test('three holds give mean and spread; the middle of a hold counts, not its outlier', () => {
  const state = after(reading(30), ...hold(30, 31, 30.5), ...hold(32, 32, 32), ...hold(31, 31, 33.5))
  expect(state.takes).toEqual([30.5, 32, 31])
  expect(meanReading(state)!.deg).toBeCloseTo(31.2, 6)
  expect(meanReading(state)!.sd).toBeCloseTo(0.76, 2)
})

test('a hold too short, or of a leg that moves, is refused and loses nothing', () => {
  const kept = after(reading(30), ...hold(30, 30, 30))
  const short = hold(30, 31).reduce(gaugeAfter, kept)
  expect(short).toMatchObject({ refused: 'short', takes: [30] })
  expect(hold(30, 34, 39).reduce(gaugeAfter, kept)).toMatchObject({ refused: 'moving', takes: [30] })
})

test('a signal lost in the middle of a hold drops that hold and keeps what was taken', () => {
  const state = after(reading(30), ...hold(30, 30, 30), { kind: 'hold' }, reading(31), { kind: 'lost', seq: 9 })
  expect(state).toMatchObject({ signal: 'lost', last: null, held: null, takes: [30] })
  expect(gaugeAfter(state, { kind: 'release' }).takes).toEqual([30])
  expect([reading(30), ...hold(32, 32, 32)].reduce(gaugeAfter, state).takes).toEqual([30, 32])
})

test('without a signal nothing can be held; another joint’s axis is shown but never taken', () => {
  expect(after({ kind: 'hold' }).held).toBeNull()
  const hip = [{ kind: 'hold' } as const, reading(80, { axis: 'hip' }), { kind: 'release' } as const]
  expect(hip.reduce(gaugeAfter, after(reading(30)))).toMatchObject({ takes: [], refused: 'short' })
})
