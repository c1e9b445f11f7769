import fc from 'fast-check'
import { explain, type ExplainRequest } from '../../operations/requests/explain'
import { BAR_WINDOW_MM, PLUMB_WINDOW_MM, schoolOf, type School } from '../../base/school/school'
import { HOLES_BIKE } from '../../testing/meanRider'
import { causeRow, COMPLAINTS } from '../model/causeTable'
import { NEVER_OF_THE_BIKE } from '../model/redFlags'
import { HEALTH, MOMENTS, QUALITIES, type Complaint, type Finding } from '../model/request'

const MARKS = { seatHeight: '7', seatSlide: 'D', barHeight: '6', barSlide: '0' }
const asked = (request: Partial<ExplainRequest>): ExplainRequest => ({
  bikeType: HOLES_BIKE,
  marks: MARKS,
  complaints: [{ what: 'frontKnee', strength: 5 }],
  findings: [],
  ...request,
})
type Explained = ReturnType<typeof explain>
const ORDINARY = COMPLAINTS.filter((what) => !NEVER_OF_THE_BIKE.some((one) => one === what))

const off = (value: number, [low, high]: readonly [number, number]): number => Math.max(low - value, value - high, 0)
const plumbWindow = ({ foreAft }: School) => PLUMB_WINDOW_MM[foreAft === 'unused' ? 'balance' : foreAft]

/** What is harmful of an answer whose knee and plumb line were read, or null. */
function harm(request: ExplainRequest, answer: Explained, deg: number, mm: number): string | null {
  const { change, expect: reads = [], causes, orSlide } = answer
  if (!change) return orSlide ? 'a slide beside no change' : null
  const school = schoolOf(request.school)
  const knee = reads.find(({ check }) => check === 'kneeFlexion')
  const plumb = reads.find(({ check }) => check === 'plumb')
  if (knee && off(knee.to!, school.kneeWindowDeg) > off(deg, school.kneeWindowDeg) + 1e-6) return 'worsens the knee'
  if (plumb && off(plumb.to!, plumbWindow(school)) > off(mm, plumbWindow(school)) + 1e-6)
    return 'worsens the plumb line'
  if (knee && knee.by < 0 && knee.to! < 20) return 'straightens the knee'
  const leads = (axis: string) => (causes.find(({ cause }) => causeRow(cause).change?.axis === axis)?.weight ?? 0) > 0.5
  const heightIsRight = off(deg, school.kneeWindowDeg) === 0
  const slideIsRight = off(mm, plumbWindow(school)) === 0
  for (const { axis } of [change, ...(orSlide ? [orSlide] : [])]) {
    if (axis === 'seatHeight' && heightIsRight && !leads(axis)) return 'moves a height that is right'
    if (axis === 'seatSlide' && slideIsRight && !leads(axis)) return 'moves a slide that is right'
  }
  return null
}

test.each(['plumb', 'midFoot', 'balance', 'unused'] as const)(
  'over complaints, knees, plumb lines and notes no proposal makes a read check worse: %s school',
  (foreAft) => {
    const notes: readonly (readonly Finding[])[] = [
      [],
      [{ kind: 'rocking', seen: 'both' }],
      [{ kind: 'seen', region: 'knees', what: 'deepBend' }],
    ]
    const harmful: string[] = []
    let proposals = 0
    for (const what of ORDINARY)
      for (let deg = 8; deg <= 50; deg += 6)
        for (const mm of [-40, -20, 0, 20, 40])
          for (const [i, note] of notes.entries()) {
            const findings: Finding[] = [{ kind: 'kneeAngle', deg }, { kind: 'plumb', mm }, ...note]
            const request = asked({ complaints: [{ what, strength: 5 }], findings, school: { foreAft } })
            const answer = explain(request)
            const found = harm(request, answer, deg, mm)
            proposals += answer.change ? 1 : 0
            if (found) harmful.push(`${what} ${deg}° ${mm} mm ${i}: ${found}`)
          }
    expect(harmful).toEqual([])
    expect(proposals).toBeGreaterThan(100)
  },
)

test('an instrument outranks a note: a knee read straight is not straightened for a note of a deep bend', () => {
  const findings: Finding[] = [
    { kind: 'kneeAngle', deg: 22 },
    { kind: 'seen', region: 'knees', what: 'deepBend' },
  ]
  const { change, causes } = explain(asked({ findings }))
  expect(change?.direction === 'up' && change.axis === 'seatHeight').toBe(false)
  const low = causes.find(({ cause }) => cause === 'saddleTooLow')!
  expect(low.for.join()).toContain('the instrument does not bear it out')
})

test('without a bike type a straight knee is not straightened, and a slide not moved the wrong way', () => {
  for (const what of ORDINARY)
    for (const [deg, mm] of [
      [22, 0],
      [40, 0],
      [30, 30],
      [30, -30],
    ]) {
      const findings: Finding[] = [
        { kind: 'kneeAngle', deg },
        { kind: 'plumb', mm },
      ]
      const { change } = explain({ complaints: [{ what, strength: 5 }], findings })
      if (change?.axis === 'seatHeight') expect(change.direction).toBe(deg < 25 ? 'down' : 'up')
      if (change?.axis === 'seatSlide') expect(change.direction).toBe(mm > 0 ? 'back' : 'forward')
    }
})

test('with nothing measured no saddle and no tilt is moved: what decides is measured first', () => {
  for (const what of ORDINARY) {
    const { change, orSlide } = explain(asked({ complaints: [{ what, strength: 5 }] }))
    expect([what, change, orSlide]).toEqual([what, undefined, undefined])
  }
  const { noChange, sentence } = explain(asked({}))
  expect(noChange?.code).toBe('measureFirst')
  expect(sentence).toContain('Measure the knee angle first: nothing is moved unmeasured.')
})

test('where all that was read is good nothing is moved: load, feet and kit, and a look in the warm-up', () => {
  const findings: Finding[] = [
    { kind: 'kneeAngle', deg: 30 },
    { kind: 'plumb', mm: 0 },
    { kind: 'barsAgainstSaddle', mm: 10 },
    { kind: 'elbows', seen: 'soft' },
  ]
  for (const what of ORDINARY) {
    const { change, noChange, causes } = explain(asked({ complaints: [{ what, strength: 5 }], findings }))
    // A tilt that nobody read is read first, where it is likeliest.
    const isTilt = causeRow(causes[0].cause).change?.axis === 'tilt'
    expect([what, change, noChange?.code]).toEqual([what, undefined, isTilt ? expect.any(String) : 'allGood'])
  }
})

test('bars that are known by their marks alone are no reason to call a knee well', () => {
  const { noChange, change } = explain(asked({ findings: [{ kind: 'barsAgainstSaddle', mm: 5 }] }))
  expect([change, noChange?.code]).toEqual([undefined, 'measureFirst'])
})

test('beside opposite wishes nothing is changed until one is settled', () => {
  const opposed = explain(
    asked({
      complaints: [
        { what: 'cramped', strength: 5 },
        { what: 'stretched', strength: 5 },
      ],
      findings: [{ kind: 'seen', region: 'hips', what: 'rocking' }],
    }),
  )
  expect(opposed.conflicts.join()).toContain('opposite changes')
  expect([opposed.change, opposed.noChange?.code]).toEqual([undefined, 'opposite'])
})

test('only the newest reading speaks; an older one that differs with nothing changed speaks for a slipped post', () => {
  const now: Finding = { kind: 'kneeAngle', deg: 42, daysAgo: 1 }
  const then: Finding = { kind: 'kneeAngle', deg: 29, daysAgo: 40 }
  const weightOf = (findings: Finding[], cause: string) =>
    explain(asked({ findings })).causes.find((one) => one.cause === cause)!
  expect(weightOf([now, then], 'saddleTooLow').against).toEqual([])
  expect(weightOf([now, then], 'postSlipped').weight).toBeGreaterThan(2 * weightOf([now], 'postSlipped').weight)
  expect(weightOf([now, then], 'postSlipped').for.join()).toContain('bends more than it did')
  const changed: Finding = { kind: 'changed', what: 'numbers', daysAgo: 20 }
  expect(weightOf([now, then, changed], 'postSlipped').for.join()).not.toContain('bends more than it did')
})

test('what to look at first begins with the leading cause’s own check', () => {
  for (const what of ORDINARY) {
    const { causes, checkFirst } = explain(asked({ complaints: [{ what, strength: 5 }] }))
    const { check } = causeRow(causes[0].cause)
    expect(checkFirst[0].toLowerCase()).toBe(check.toLowerCase())
  }
})

test('a weak complaint with few causes does not outweigh a stronger one with many', () => {
  const { causes } = explain(
    asked({
      complaints: [
        { what: 'keepsMovingBack', strength: 3 },
        { what: 'lowBack', strength: 7 },
      ],
    }),
  )
  expect(causeRow(causes[0].cause).cause).toMatch(/barsTooFar|barsTooLow/)
})

test('the plumb line is judged by the school: 60 mm behind is the middle of the mid-foot window', () => {
  const reasons = (foreAft: School['foreAft'], mm: number) => {
    const { causes } = explain(
      asked({
        complaints: [{ what: 'keepsMovingBack', strength: 5 }],
        findings: [{ kind: 'plumb', mm }],
        school: { foreAft },
      }),
    )
    return causes.find(({ cause }) => cause === 'saddleTooFarBack')!
  }
  expect(reasons('plumb', -60).for.join()).toContain('farther back than it should')
  expect(reasons('midFoot', -60).for.join()).not.toContain('farther back')
  expect(reasons('midFoot', -60).against.join()).toContain('hangs where it should')
  // Balance and unused guard against gross errors only: a reading inside is no evidence.
  for (const school of ['balance', 'unused'] as const) {
    expect([reasons(school, -60).for, reasons(school, -60).against].join()).not.toContain('hangs')
    expect(reasons(school, -110).for.join()).toContain('farther back than it should')
  }
})

test('the bars are judged by school and rider, the tilt by how the board lay', () => {
  const low = (request: Partial<ExplainRequest>) =>
    explain(asked({ complaints: [{ what: 'neck', strength: 5 }], ...request })).causes.find(
      ({ cause }) => cause === 'barsTooLow',
    )!
  const level: Finding[] = [{ kind: 'barsAgainstSaddle', mm: 5 }]
  expect(low({ findings: level, experience: 'regular' }).against.join()).toContain('as high as they should')
  expect(low({ findings: level, experience: 'new' }).for.join()).toContain('lower than they should')
  expect(low({ findings: level, school: { bars: 'above' } }).for.join()).toContain('lower than they should')
  expect(BAR_WINDOW_MM.level).toEqual([-15, 20])
  const nose = (across: 'frontHalf' | 'highestPoints') =>
    explain(
      asked({
        complaints: [{ what: 'saddlePressure', strength: 5 }],
        findings: [{ kind: 'tilt', deg: 0, shape: 'curved', across }],
      }),
    ).causes.find(({ cause }) => cause === 'noseUp')!
  expect(nose('highestPoints').for.join()).toContain('points up')
  expect(nose('frontHalf').for.join()).not.toContain('points up')
})

test('sizes called large: over 5 mm of height, 15 of slide, 20 of bars, 1° of tilt', () => {
  const change = (request: Partial<ExplainRequest>) => explain(asked(request)).change!
  expect(change({ findings: [{ kind: 'kneeAngle', deg: 41 }] })).toMatchObject({ axis: 'seatHeight', large: true })
  const slid = change({
    findings: [
      { kind: 'kneeAngle', deg: 30 },
      { kind: 'plumb', mm: 35 },
    ],
  })
  expect(slid).toMatchObject({ axis: 'seatSlide', large: false })
  expect(Math.abs(slid.mm!)).toBeLessThanOrEqual(20)
})

const complaint = fc.record(
  {
    what: fc.constantFrom(...COMPLAINTS),
    side: fc.constantFrom('left', 'right', 'both'),
    strength: fc.integer({ min: 0, max: 10 }),
    when: fc.constantFrom(...MOMENTS),
    lasts: fc.boolean(),
    quality: fc.uniqueArray(fc.constantFrom(...QUALITIES), { maxLength: 2 }),
  },
  { requiredKeys: ['what', 'strength'] },
) as fc.Arbitrary<Complaint>

test('a referral never accompanies a change, cue or exercise: complaints, health, quality, lasting, strength', () => {
  fc.assert(
    fc.property(
      fc.array(complaint, { minLength: 1, maxLength: 4 }),
      fc.uniqueArray(fc.constantFrom(...HEALTH), { maxLength: 2 }),
      fc.option(fc.integer({ min: 8, max: 50 }), { nil: null }),
      (complaints, health, deg) => {
        const findings: Finding[] =
          deg === null
            ? []
            : [
                { kind: 'kneeAngle', deg },
                { kind: 'plumb', mm: 30 },
              ]
        const told = explain(asked({ complaints, health, findings }))
        const { refer, change, cue, offBike, orSlide, remedy } = told
        if (refer) expect([change, cue, offBike, orSlide, remedy]).toEqual(Array(5).fill(undefined))
        const mustRefer =
          complaints.some(
            ({ what, strength, quality = [], lasts, side }) =>
              NEVER_OF_THE_BIKE.some((one) => one === what) ||
              quality.length > 0 ||
              (strength >= 8 && ['frontKnee', 'lowBack', 'neck', 'hands', 'feet'].includes(what)) ||
              (lasts && side !== 'both' && ['frontKnee', 'lowBack', 'neck'].includes(what)) ||
              (lasts && ['hands', 'feet', 'saddlePressure', 'wrist'].includes(what)),
          ) ||
          health.includes('heart') ||
          health.includes('recentOperation')
        if (mustRefer) expect(refer).toBeDefined()
        // In pregnancy nothing lowers the bars against the saddle.
        if (health.includes('pregnant') && change) {
          const bars = told.expect?.find(({ check }) => check === 'barAgainstSaddle')
          expect(change.axis === 'barHeight' && change.direction === 'down').toBe(false)
          expect(bars === undefined || bars.by >= -1).toBe(true)
          expect(told.sentence).toMatch(/^Pregnant: their clinician’s word comes first\./)
        }
      },
    ),
    { numRuns: 1500, seed: 23 },
  )
})

test.each<readonly [string, Partial<ExplainRequest>]>([
  ['8 of 10', { complaints: [{ what: 'neck', strength: 8 }] }],
  ['lasting, side not told', { complaints: [{ what: 'frontKnee', strength: 4, lasts: true }] }],
  [
    'left shoulder on hard efforts',
    { complaints: [{ what: 'shoulders', side: 'left', strength: 3, when: 'hardEfforts' }] },
  ],
  [
    'a low back that lasts with a numb foot',
    {
      complaints: [
        { what: 'lowBack', side: 'both', strength: 3, lasts: true },
        { what: 'feet', strength: 2 },
      ],
    },
  ],
  [
    'one-sided calf after the ride',
    { complaints: [{ what: 'calfSwelling', side: 'left', strength: 2, when: 'after' }] },
  ],
  ['a heart condition', { complaints: [{ what: 'stretched', strength: 2 }], health: ['heart'] }],
  ['low back in pregnancy', { complaints: [{ what: 'lowBack', strength: 3 }], health: ['pregnant'] }],
])('%s is sent on (common practice, no source)', (_, request) => {
  expect(explain(asked(request)).refer).toBeDefined()
})

test('an unknown side of a lasting pain has to be recorded first', () => {
  const { refer, sentence } = explain(asked({ complaints: [{ what: 'frontKnee', strength: 4, lasts: true }] }))
  expect(refer?.askFirst).toMatch(/which side/)
  expect(sentence).toMatch(/^Ask which side/)
  const both = explain(asked({ complaints: [{ what: 'frontKnee', side: 'both', strength: 4, lasts: true }] }))
  expect(both.refer).toBeUndefined()
})
