import type { Evidence } from '../../riders/evidence/registry'
import { recommend } from '../../operations/requests/recommend'
import type { BikeType } from '../../bikes/bike/bike'
import { HOLES_BIKE } from '../../testing/meanRider'

const at = { seatHeight: '8', seatSlide: 'D' }
const tape: Evidence[] = [
  { kind: 'stature', mm: 1700 },
  { kind: 'inseam', mm: 820, shod: false },
]
const answer = (evidence: Evidence[], bikeType: BikeType = HOLES_BIKE) =>
  recommend({ bikeType, evidence, samples: 1500 })
const everything = (a: ReturnType<typeof answer>) => [
  a.next.sentence,
  ...a.next.because,
  ...a.cautions,
  a.bars.sentence,
  ...a.doubts.map((d) => d.say),
]

const SITUATIONS: Record<string, Evidence[]> = {
  nothing: [],
  tape,
  change: [...tape, { kind: 'kneeAngle', deg: 40, by: 'goniometer', at }, { kind: 'plumb', mm: 8, at }],
  kneeOnly: [...tape, { kind: 'kneeAngle', deg: 40, by: 'goniometer', at }],
  stop: [
    ...tape,
    { kind: 'kneeAngle', deg: 30, by: 'goniometer', at: { seatHeight: '9', seatSlide: 'D' } },
    { kind: 'plumb', mm: 3, at: { seatHeight: '9', seatSlide: 'D' } },
  ],
  eye: [
    ...tape,
    { kind: 'kneeByEye', seen: 'locked', at: { seatHeight: '11', seatSlide: 'D' } },
    { kind: 'heelCheck', seen: 'cannotReach', at: { seatHeight: '11' } },
  ],
  plumb: [
    ...tape,
    { kind: 'kneeAngle', deg: 30, by: 'goniometer', at: { seatHeight: '9', seatSlide: 'D' } },
    { kind: 'plumb', mm: 48, at: { seatHeight: '9', seatSlide: 'D' } },
  ],
  tooTall: [
    { kind: 'stature', mm: 2150 },
    { kind: 'kneeAngle', deg: 55, by: 'goniometer', at: { seatHeight: '15', seatSlide: 'D' } },
  ],
  contradiction: [...tape, { kind: 'stature', mm: 1450 }, { kind: 'kneeAngle', deg: 30, by: 'goniometer', at }],
}

test.each(Object.entries(SITUATIONS))(
  '%s: every line is a finished sentence without NaN, codes, blame or shouting',
  (_, evidence) => {
    for (const line of everything(answer(evidence))) {
      expect(line).toMatch(/^[A-Z].*[.”]$/s)
      expect(line).not.toMatch(/NaN|undefined|null|!|\bwrong\b|[a-z][A-Z]/)
    }
  },
)

test('a change states which way, how many marks, from and to, and where the knee goes', () => {
  expect(answer(SITUATIONS.change).next.sentence).toMatch(
    /^Raise the seat one mark, 8 to 9: the knee should come from (39|40)° to about 3\d°\.$/,
  )
})

test('two moves are one sentence, each with its own from and to, and the knee another', () => {
  expect(answer(SITUATIONS.plumb).next.moves.length).toBeGreaterThan(0)
  const both = answer([
    ...SITUATIONS.plumb.slice(0, 2),
    { kind: 'kneeAngle', deg: 41, by: 'goniometer', at },
    { kind: 'plumb', mm: 30 },
  ])
  expect(both.next.moves).toHaveLength(2)
  expect(both.next.sentence).toMatch(
    /^Raise the seat \w+ marks?, 8 to \d+, and slide the saddle back \w+ marks?, D to [ABC]\. The knee/,
  )
})

test('on a ruler a change is reported in centimetres or millimetres, with the ruler’s signs', () => {
  const ruled: BikeType = {
    ...HOLES_BIKE,
    axes: {
      ...HOLES_BIKE.axes,
      seatHeight: {
        directionDeg: 107,
        scale: { ruler: { min: -14, max: 14, resolution: 0.5, mmPerUnit: 10, mmAtZero: 140 } },
      },
    },
  }
  const { sentence } = answer(
    [
      ...tape,
      { kind: 'kneeAngle', deg: 42, by: 'goniometer', at: { seatHeight: '-0.5', seatSlide: 'D' } },
      { kind: 'plumb', mm: 10, at: { seatHeight: '-0.5', seatSlide: 'D' } },
    ],
    ruled,
  ).next
  expect(sentence).toMatch(/^Raise the seat \d+ mm, −0\.5 to \+\d(\.5)?: /)
})

test('a saddle too far forward goes back, because the slide belongs to the pedals', () => {
  const { next } = answer(SITUATIONS.plumb)
  expect(next.sentence).toMatch(/slide the saddle back/i)
  expect(next.because.join(' ')).toMatch(/The plumb line fell 48 mm ahead of the pedal axle/)
  expect(next.because.join(' ')).toMatch(/lengthens the reach by \d/)
})

test('the usual cautions come with every move, and the last word is the clinician’s', () => {
  const { cautions } = answer(SITUATIONS.change)
  expect(cautions.join(' ')).toMatch(
    /from the floor.*Close every pin.*insertion mark.*Direct drive.*licensed clinician.*local codes/s,
  )
})

test('bars: where, how far above, and why', () => {
  expect(answer([...tape, { kind: 'rider', experience: 'new' }]).bars.sentence).toMatch(
    /^Bars at \d+ and .*: \d+ mm above the saddle, a new rider sits easier with the bars up\./,
  )
  expect(answer([...tape, { kind: 'rider', experience: 'regular', backSore: true }]).bars.sentence).toContain(
    'a sore back wants the bars up',
  )
})

test('the sentence for a type without a bar slide states what that means for the reach', () => {
  const { seatHeight, seatSlide, barHeight } = HOLES_BIKE.axes
  expect(answer(tape, { ...HOLES_BIKE, axes: { seatHeight, seatSlide, barHeight } }).bars.sentence).toContain(
    'bars do not slide',
  )
})

test(
  'in feet and inches no sentence speaks of centimetres or millimetres; the figures beside ' + 'them stay millimetres',
  () => {
    for (const evidence of Object.values(SITUATIONS)) {
      const inches = recommend({ bikeType: HOLES_BIKE, evidence, samples: 1500, lengths: 'imperial' })
      expect(everything(inches).join(' ')).not.toMatch(/\d (cm|mm)/)
      expect(inches.chances).toEqual(answer(evidence).chances)
    }
    expect(
      recommend({ bikeType: HOLES_BIKE, evidence: SITUATIONS.tooTall, samples: 1500, lengths: 'imperial' }).next
        .sentence,
    ).toMatch(/ends at 15, \d+( \d+\/\d+)?″ too low/)
  },
)
