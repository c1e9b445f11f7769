import { workOf } from './cost'
import fc from 'fast-check'
import { contactAt, HOLES_BIKE as bikeType, meanRider } from '../testing/meanRider'
import { PRIOR_PARTS } from '../riders/rider/prior'
import type { ErrorResponse } from './errorResponse'
import { evidenceIssues, dispatch } from './dispatch'
import { isErrorResponse } from './errorResponse'
import { schemas } from './schemas'

const issues = (operation: string, request: unknown) => {
  const answer = dispatch(operation, request)
  if (!isErrorResponse(answer)) throw new Error('was answered')
  return (answer as ErrorResponse).error
}
const pointers = (operation: string, request: unknown) => issues(operation, request).faults.map((f) => f.pointer)
const reason = (operation: string, request: unknown) => issues(operation, request).faults[0].reason
const recommend = (...evidence: object[]) => ({ bikeType, evidence })

test('the prior of the wire format has the parts of the core’s prior', () => {
  const { properties } = (schemas.recommend as { properties: { prior: { properties: object } } }).properties.prior
  expect(Object.keys(properties)).toEqual([...PRIOR_PARTS])
})

describe('place', () => {
  test('answers with the four lengths and names what it assumed', () => {
    expect(dispatch('place', { bikeType, marks: { seatHeight: '8', barSlide: '+1.5' } })).toMatchObject({
      lengths: { saddleHeightMm: expect.closeTo(700, 6) },
      assumed: ['seatSlide', 'barHeight'],
    })
  })

  test('names the nearest labels of a mark the bike does not have', () => {
    expect(issues('place', { bikeType, marks: { seatHeight: '17', seatSlide: 'K' } }).faults).toEqual([
      { pointer: '/marks/seatHeight', reason: 'the seat height has no mark 17; the nearest are 15 and 14' },
      { pointer: '/marks/seatSlide', reason: 'the seat slide has no mark K; the nearest are G and F' },
    ])
  })

  test('refuses scales that contradict themselves, at their place', () => {
    const scaled = (marks: object[]) => ({
      bikeType: {
        ...bikeType,
        axes: { ...bikeType.axes, seatHeight: { directionDeg: 107, scale: { marks, halfMarks: false } } },
      },
      marks: {},
    })
    expect(
      pointers(
        'place',
        scaled([
          { label: '1', mm: 0 },
          { label: '1', mm: 20 },
        ]),
      ),
    ).toEqual(['/bikeType/axes/seatHeight/scale/marks/1/label'])
    expect(
      pointers(
        'place',
        scaled([
          { label: '1', mm: 0 },
          { label: '2', mm: 20 },
          { label: '3', mm: 10 },
        ]),
      ),
    ).toEqual(['/bikeType/axes/seatHeight/scale/marks/2/mm'])
  })

  test('an offset of an axis the type lacks is refused', () => {
    const { seatHeight, seatSlide, barHeight } = bikeType.axes
    expect(
      pointers('place', {
        bikeType: { ...bikeType, axes: { seatHeight, seatSlide, barHeight } },
        bike: { offsetsMm: { barSlide: 3 } },
        marks: {},
      }),
    ).toEqual(['/bike/offsetsMm/barSlide'])
  })
})

test('pose answers one pose a crank angle, in order', () => {
  const answer = dispatch('pose', {
    rider: meanRider(1700),
    contact: contactAt(715),
    crankMm: 170,
    pedalSurfaceMm: 14,
    crankDeg: [163, 0],
  })
  expect(answer).toMatchObject({
    poses: [
      { crankDeg: 163, outcome: 'posed' },
      { crankDeg: 0, outcome: 'posed' },
    ],
  })
})

describe('issues', () => {
  test('missing, not a number and out of range are distinguished, and all are found', () => {
    const found = issues(
      'recommend',
      recommend({ kind: 'stature' }, { kind: 'stature', mm: '1700' }, { kind: 'stature', mm: 17_000 }),
    ).faults
    expect(found).toEqual([
      { pointer: '/evidence/0/mm', reason: 'is missing' },
      { pointer: '/evidence/1/mm', reason: 'must be a number' },
      { pointer: '/evidence/2/mm', reason: 'is out of range: at most 2500 is possible' },
    ])
  })

  test('a kind nobody knows is refused by name of those there are', () => {
    expect(issues('recommend', recommend({ kind: 'gaze' })).faults).toContainEqual({
      pointer: '/evidence/0/kind',
      reason: expect.stringMatching(/^must be one of .*kneeAngle/),
    })
  })

  test('147 for 33 is reported as the angle between the bones', () => {
    const at = { seatHeight: '8' }
    expect(reason('recommend', recommend({ kind: 'kneeAngle', deg: 147, by: 'goniometer', at }))).toMatch(
      /between the bones/,
    )
  })

  test('unknown fields, unknown operations, a check without marks, an inseam as long as the body', () => {
    expect(pointers('recommend', { ...recommend(), 'a/b': 1 })).toEqual(['/a~1b'])
    expect(issues('fly', {}).kind).toBe('unknownOperation')
    expect(issues('toString', {}).kind).toBe('unknownOperation')
    expect(pointers('recommend', recommend({ kind: 'plumb', mm: 3 }))).toEqual(['/evidence/0/at'])
    expect(
      pointers('recommend', recommend({ kind: 'landmarkAtMark', landmark: 'hipCrest', at: { seatSlide: 'D' } })),
    ).toEqual(['/evidence/0/at'])
    expect(
      reason('recommend', recommend({ kind: 'stature', mm: 1250 }, { kind: 'inseam', mm: 1260, shod: false })),
    ).toMatch(/as long as the whole body/)
  })

  test('every check names the seat height it was made at; its slide may stand where a row before it left it', () => {
    expect(
      pointers(
        'recommend',
        recommend({ kind: 'set', at: { seatHeight: '8' } }, { kind: 'heelCheck', seen: 'justStraight' }),
      ),
    ).toEqual(['/evidence/1/at'])
    expect(pointers('recommend', recommend({ kind: 'plumb', mm: 3, at: { seatSlide: 'D' } }))).toEqual([
      '/evidence/0/at',
    ])
    expect(
      isErrorResponse(
        dispatch('recommend', {
          ...recommend(
            { kind: 'set', at: { seatSlide: 'C' } },
            { kind: 'heelCheck', seen: 'justStraight', at: { seatHeight: '8' } },
          ),
          samples: 200,
        }),
      ),
    ).toBe(false)
  })

  /** A good request of each operation, to be spoiled. */
  const GOOD: Readonly<Record<string, object>> = {
    place: { bikeType, bike: { offsetsMm: { seatHeight: 2 } }, marks: { seatHeight: '8', seatSlide: 'D' } },
    pose: { rider: meanRider(1700), contact: contactAt(715), crankMm: 170, pedalSurfaceMm: 14, crankDeg: [163, 0] },
    calibrate: { bikeType, readings: [{ marks: { seatHeight: '8' }, lengths: { stackMm: 700, reachMm: 620 } }] },
    recommend: {
      ...recommend(
        { kind: 'stature', mm: 1700 },
        { kind: 'kneeAngle', deg: 31, by: 'goniometer', at: { seatHeight: '8', seatSlide: 'D' } },
      ),
      school: { kneeWindowDeg: [25, 35] },
      seed: 3,
      samples: 200,
    },
  }

  /** Every place of a value: what holds it, and its key there. */
  function placesOf(value: unknown): [held: Record<string, unknown>, key: string][] {
    if (typeof value !== 'object' || value === null) return []
    return Object.keys(value).flatMap((key) => {
      const held = value as Record<string, unknown>
      return [[held, key] as [Record<string, unknown>, string], ...placesOf(held[key])]
    })
  }

  test('the good requests are answered', () => {
    for (const [operation, request] of Object.entries(GOOD))
      expect(isErrorResponse(dispatch(operation, request))).toBe(false)
  })

  test(
    'a good request with anything in the place of any of its parts is answered, or refused ' +
      'with a place that exists in it',
    () => {
      let refused = 0
      fc.assert(
        fc.property(
          fc.constantFrom(...Object.keys(GOOD)),
          fc.nat(),
          fc.oneof(fc.jsonValue({ maxDepth: 2 }), fc.constant(undefined)),
          (operation, which, value) => {
            const request = structuredClone(GOOD[operation])
            const places = placesOf(request)
            const [held, key] = places[which % places.length]
            held[key] = value
            const answer = dispatch(operation, request)
            expect(JSON.stringify(answer)).not.toMatch(/null,null|NaN/)
            if (!isErrorResponse(answer)) return
            refused += 1
            for (const { pointer } of answer.error.faults) expect(pointer).toMatch(/^(\/|$)/)
            expect(answer.error.faults.length).toBeGreaterThan(0)
          },
        ),
        { numRuns: 400 },
      )
      expect(refused).toBeGreaterThan(100)
    },
  )

  test('a bike type with any one field broken is refused at that field', () => {
    const fields = [
      'name',
      'crankMm',
      'pedalSurfaceMm',
      'axleHeightMm',
      'saddle',
      'seatOrigin',
      'gripOrigin',
      'axes',
      'forearmGaugeValid',
    ]
    for (const field of fields)
      expect(pointers('place', { bikeType: { ...bikeType, [field]: null }, marks: {} })).toEqual([`/bikeType/${field}`])
  })
})

test('a row for the database is held to the same schema', () => {
  expect(evidenceIssues({ kind: 'kneeAngle', deg: 31, by: 'goniometer', at: { seatHeight: '8' } })).toEqual([])
  expect(evidenceIssues({ kind: 'kneeAngle', deg: 200, by: 'goniometer' })[0].pointer).toBe('/deg')
  expect(evidenceIssues(null)[0]).toEqual({ pointer: '', reason: 'must be an object' })
})

describe('calibrate', () => {
  const at = (seatHeight: string, barHeight: string) => ({ seatHeight, seatSlide: 'D', barHeight, barSlide: '0' })
  const reading = (seatHeight: string, barHeight: string) => ({
    marks: at(seatHeight, barHeight),
    lengths: { ...(dispatch('place', { bikeType, marks: at(seatHeight, barHeight) }) as { lengths: object }).lengths },
  })
  const ask = (...readings: unknown[]) => dispatch('calibrate', { bikeType, readings })

  test('refused is an answer, with its reason, its sentence and where to measure next', () => {
    expect(ask()).toMatchObject({
      outcome: 'refused',
      reason: 'noReadings',
      say: 'Nothing was measured yet.',
      next: { sentence: expect.stringMatching(/^Set the seat height at .* then take the four lengths\.$/) },
    })
    expect(ask(reading('1', '1'), reading('15', '12'))).toMatchObject({
      outcome: 'refused',
      reason: 'tooFewMarks',
      say: 'The seat slide was read at D only; read it at a second mark far from there.',
    })
  })

  test(
    'issues name the reading and the field: a mark the bike has not, a bar below the axle, ' + 'an unknown length',
    () => {
      const pointersOf = (answer: object) =>
        (answer as { error: { faults: { pointer: string }[] } }).error.faults.map((f) => f.pointer)
      expect(pointersOf(ask({ marks: { seatHeight: '99' }, lengths: { stackMm: 700 } }))).toEqual([
        '/readings/0/marks/seatHeight',
      ])
      expect(pointersOf(ask({ marks: { seatHeight: '1' }, lengths: { stackMm: -20 } }))).toEqual([
        '/readings/0/lengths/stackMm',
      ])
      expect(pointersOf(ask({ marks: { seatHeight: '1' }, lengths: { height: 700 } }))).toEqual([
        '/readings/0/lengths/height',
      ])
      expect(pointersOf(ask({ marks: { seatHeight: '1' }, lengths: { stackMm: Number.NaN } }))).toEqual([
        '/readings/0/lengths/stackMm',
      ])
    },
  )
})

describe('what is far too large is refused at the limit, not looked at item by item', () => {
  test('a list beyond its limit is one issue, whatever lies in it', () => {
    expect(issues('recommend', { bikeType, evidence: Array(8000).fill(null) }).faults).toEqual([
      { pointer: '/evidence', reason: 'is too long: at most 500' },
    ])
    const marks = Array.from({ length: 300 }, () => 'nothing')
    expect(
      pointers('place', {
        bikeType: {
          ...bikeType,
          axes: { ...bikeType.axes, seatHeight: { directionDeg: 107, scale: { marks, halfMarks: false } } },
        },
        marks: {},
      }),
    ).toEqual(['/bikeType/axes/seatHeight/scale/marks'])
  })

  test('an object with thousands of fields is one issue', () => {
    const many = Object.fromEntries(Array.from({ length: 40_000 }, (_, i) => [`f${i}`, i]))
    expect(evidenceIssues({ kind: 'stature', mm: 1700, ...many })).toEqual([
      { pointer: '', reason: 'has 40002 fields: far too many' },
    ])
    expect(evidenceIssues({ kind: 'set', at: many })).toEqual([
      { pointer: '/at', reason: 'has 40000 fields: far too many' },
    ])
    expect(evidenceIssues({ kind: 'nothing', ...many })).toHaveLength(1)
  })

  test('a hundred issues are spelled out, the rest counted', () => {
    const { faults: found, more } = issues('recommend', { bikeType, evidence: Array(500).fill({ kind: 'stature' }) })
    expect(found).toHaveLength(100)
    expect(more).toBe(400)
    expect(found[99]).toEqual({ pointer: '/evidence/99/mm', reason: 'is missing' })
  })
})

test('a translation with a rider’s rows counts by them, one without costs next to nothing', () => {
  expect(workOf('translate', {})).toBe(0)
  expect(workOf('translate', { evidence: Array(200) })).toBeGreaterThan(workOf('translate', { evidence: Array(20) }))
})
