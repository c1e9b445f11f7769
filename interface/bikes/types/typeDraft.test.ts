import { referenceMarks } from '@/core/bikes/bike/referenceMarks'
import fc from 'fast-check'
import { createRng } from '@/core/base/rng'
import { sameGeometry } from '@/core/bikes/calibration/predictionError'
import { DEFAULT_EQUIPMENT } from '@/core/bikes/bike/equipment'
import { trueTypeFor } from '@/core/simulated/simulatedTape'
import { middlePosition } from '@/core/bikes/scale/scale'
import { SIX_BIKE } from '@/core/testing/furtherTypes'
import { HOLES_BIKE } from '@/core/testing/meanRider'
import { formatTypePointer } from '@/core/messages/bikes/typeFields'
import { parseDraft } from './parseDraft'
import { draftFromDocument, NEW_DRAFT, waysOf, type TypeDraft } from './typeDraft'

const document = { bikeType: HOLES_BIKE, equipment: DEFAULT_EQUIPMENT }
const says = (change: Partial<TypeDraft>) =>
  parseDraft({ ...NEW_DRAFT, name: 'Teasel', ...change }, 'metric').issues.map((f) => f.reason)
const axis = (name: 'seatHeight' | 'barHeight', change: object) => ({
  axes: { ...NEW_DRAFT.axes, [name]: { ...NEW_DRAFT.axes[name], ...change } },
})

test('a new type needs nothing but a name to be drawn', () => {
  expect(says({})).toEqual([])
  expect(says({ name: '  ' })).toEqual(['Name: is missing'])
})

test('a type typed and read again is the same to a hundredth of a millimetre, in either units', () => {
  fc.assert(
    fc.property(fc.integer(), fc.constantFrom('metric' as const, 'imperial' as const), (seed, shown) => {
      const bikeType = trueTypeFor(HOLES_BIKE, { originMm: 15, directionDeg: 2, spacingShare: 0.04 }, createRng(seed))
      const read = parseDraft(draftFromDocument({ ...document, bikeType }, shown), shown)
      expect(read.issues).toEqual([])
      expect(read.document!.bikeType.seatOrigin.xMm).toBeCloseTo(bikeType.seatOrigin.xMm, 1)
      expect(read.document!.bikeType.gripOrigin.yMm).toBeCloseTo(bikeType.gripOrigin.yMm, 1)
      expect(read.document!.bikeType.axes.seatHeight.directionDeg).toBeCloseTo(bikeType.axes.seatHeight.directionDeg, 1)
      expect(read.document!.bikeType.axes.barSlide).toEqual({
        ...bikeType.axes.barSlide,
        scale: { ruler: expect.objectContaining({ min: -4, max: 4 }) },
      })
    }),
  )
})

test('surfaces of the pedal’s two sides and further hand positions come back as they were', () => {
  const bikeType = {
    ...HOLES_BIKE,
    pedalSurfacesMm: { cleat: 9 },
    grips: [
      { name: 'Far', aheadMm: 95, aboveMm: -12.5 },
      { name: 'Wide', aheadMm: 20, aboveMm: 0 },
    ],
  }
  for (const shown of ['metric', 'imperial'] as const) {
    const read = parseDraft(draftFromDocument({ ...document, bikeType }, shown), shown)
    expect(read.issues).toEqual([])
    expect(read.document!.bikeType.pedalSurfacesMm).toEqual({ cleat: 9 })
    expect(read.document!.bikeType.grips).toEqual(bikeType.grips)
  }
  expect(parseDraft({ ...NEW_DRAFT, name: 'Teasel' }, 'metric').document!.bikeType).not.toHaveProperty('grips')
  const far = { name: 'Far', ahead: '', above: '0' }
  expect(says({ grips: [far] })).toEqual(['Far, ahead: is missing'])
  const twice = { ...far, ahead: '90' }
  expect(says({ grips: [twice, twice] })).toEqual(['Hand position: “Far” stands twice'])
  expect(says({ grips: [{ ...twice, name: ' ' }] })).toEqual(['Hand position: is missing'])
  expect(says({ cleatSurface: 'flat' })).toEqual(['Cleat side: “flat” is not a length'])
})

test('lengths are read in any spelling', () => {
  const read = parseDraft({ ...NEW_DRAFT, name: 'Teasel', crank: '17 cm', stack: '24 in' }, 'metric')
  expect(read.document!.bikeType.crankMm).toBe(170)
  expect(read.document!.bikeType.gripOrigin.yMm).toBeCloseTo(609.6, 6)
})

test('contradictions are reported with their place', () => {
  expect(says({ crank: 'long' })).toEqual(['Crank: “long” is not a length'])
  expect(says({ stack: '' })).toEqual(['Stack: is missing'])
  expect(says({ crank: '17' })).toEqual([expect.stringMatching(/^Crank: is out of range: at least 50/)])
  expect(says({ stack: '-50 mm' })).toEqual([expect.stringMatching(/^Bars: puts the bars below the crank axle/)])
  expect(says({ setback: '600 mm' })).toEqual(['Setback: lies farther back than the saddle height reaches'])
  expect(says({ seatLean: 'x' })).toEqual(['Seat post: “x” is not a number'])
  expect(says(axis('seatHeight', { labels: '1-5 3' }))).toEqual(['Seat height: 3 stands twice'])
  expect(says(axis('barHeight', { spacing: '0' }))).toEqual(['Bar height: marks must lie apart'])
  expect(says(axis('barHeight', { form: 'ruler', min: '5', max: '1' }))).toEqual([
    expect.stringMatching(/^Bar height: lies below/),
  ])
  expect(says(axis('barHeight', { form: 'ruler', step: '0' }))).toContain('Bar height: a step must be more than 0')
})

test('marks whose larger label lies lower run the other way', () => {
  const read = parseDraft(
    { ...NEW_DRAFT, name: 'Teasel', stack: '900 mm', ...axis('barHeight', { later: 'less' }) },
    'metric',
  )
  expect(read.document!.bikeType.axes.barHeight.scale).toMatchObject({
    marks: expect.arrayContaining([{ label: '2', mm: -20 }]),
  })
  expect(waysOf('barHeight').less).toBe('down')
  expect(waysOf('seatSlide').less).toBe('back')
})

test('the typed lengths hold at the marks nearest zero; a bar slide may be absent', () => {
  const read = parseDraft({ ...NEW_DRAFT, name: 'Teasel', barSlides: false }, 'metric')
  expect(referenceMarks(read.document!.bikeType)).toEqual({ seatHeight: '1', seatSlide: 'E', barHeight: '1' })
  expect(read.document!.equipment.closing.barSlide).toBeUndefined()
})

test('places are reported in the words of the form', () => {
  expect(['/bikeType/axes/seatSlide/scale', '/types/0/bikeType/crankMm', ''].map(formatTypePointer)).toEqual([
    'Seat slide',
    'Crank',
    'File',
  ])
})

test('an axis described downward or backward is turned, and stays the same bike', () => {
  const { seatSlide, barHeight } = HOLES_BIKE.axes
  const mirrored = (axis: typeof seatSlide) => ({
    directionDeg: axis.directionDeg + 180,
    scale:
      'marks' in axis.scale ? { ...axis.scale, marks: axis.scale.marks.map((m) => ({ ...m, mm: -m.mm })) } : axis.scale,
  })
  const other = {
    ...HOLES_BIKE,
    axes: { ...HOLES_BIKE.axes, seatSlide: mirrored(seatSlide), barHeight: mirrored(barHeight) },
  }
  const draft = draftFromDocument({ ...document, bikeType: other }, 'metric')
  expect([draft.axes.seatSlide.later, draft.axes.barHeight.later]).toEqual(['more', 'more'])
  expect(sameGeometry(parseDraft(draft, 'metric').document!.bikeType, HOLES_BIKE)).toBe(true)
})

test('a new slide has its middle mark at zero, whichever way it runs: there a set-up begins', () => {
  for (const later of ['more', 'less'] as const) {
    const read = parseDraft(
      {
        ...NEW_DRAFT,
        name: 'Teasel',
        axes: { ...NEW_DRAFT.axes, seatSlide: { ...NEW_DRAFT.axes.seatSlide, labels: '1-5', later } },
      },
      'metric',
    )
    expect(middlePosition(read.document!.bikeType.axes.seatSlide!.scale)).toEqual({ label: '3', mm: 0 })
  }
})

test('a type of six adjustments is typed and read again: names, order, choice of cranks and all', () => {
  const bikeType = {
    ...SIX_BIKE,
    order: ['frameHeight', 'seatHeight'] as const,
    axes: { ...SIX_BIKE.axes, frameHeight: { ...SIX_BIKE.axes.frameHeight!, riderOn: true as const } },
  }
  const equipment = { ...DEFAULT_EQUIPMENT, closing: { ...DEFAULT_EQUIPMENT.closing, frameHeight: 'lever' as const } }
  const read = parseDraft(draftFromDocument({ bikeType, equipment }, 'metric'), 'metric')
  expect(read.issues).toEqual([])
  expect(sameGeometry(read.document!.bikeType, bikeType)).toBe(true)
  expect(read.document!.bikeType.axes.frameHeight).toMatchObject({ name: 'Lift', riderOn: true })
  expect(read.document!.bikeType.axes.crankLength).toEqual(SIX_BIKE.axes.crankLength)
  expect(read.document!.bikeType.order).toEqual(['frameHeight', 'seatHeight'])
  expect(read.document!.equipment.closing.frameHeight).toBe('lever')
})

test('a seat that does not slide, and cranks without a length, by their field', () => {
  const fixed = parseDraft({ ...NEW_DRAFT, name: 'Teasel', seatSlides: false }, 'metric')
  expect(Object.keys(fixed.document!.bikeType.axes)).toEqual(['seatHeight', 'barHeight', 'barSlide'])
  const cranks = { ...NEW_DRAFT.axes.crankLength, labels: '165 short' }
  const wrong = { further: ['crankLength'] as const, axes: { ...NEW_DRAFT.axes, crankLength: cranks } }
  expect(says(wrong)).toEqual(['Crank length: “short” is not a length'])
  const along = { ...NEW_DRAFT.axes.seatExtra, direction: '107' }
  expect(says({ further: ['seatExtra'], axes: { ...NEW_DRAFT.axes, seatExtra: along } })).toEqual([
    'Second seat adjustment: runs along the same line as the seat height: one of the two is enough',
  ])
})
