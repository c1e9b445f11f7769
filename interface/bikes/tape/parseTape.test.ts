import { EMPTY_LENGTHS, parseTape, type TapeMethod } from './parseTape'

const DIRECT: TapeMethod = { setback: 'direct', reach: 'seat' }
const read = (
  typed: Partial<typeof EMPTY_LENGTHS>,
  how: TapeMethod = DIRECT,
  shown: 'metric' | 'imperial' = 'metric',
) => parseTape({ ...EMPTY_LENGTHS, ...typed }, how, 150, shown)

test('whichever lengths were read are taken, in any spelling', () => {
  expect(read({ saddleHeightMm: '702', stackMm: '24 in' })).toEqual({
    lengths: { saddleHeightMm: 702, stackMm: 609.6 },
    wrong: '',
  })
  expect(read({ setbackMm: '-12' }).lengths).toEqual({ setbackMm: -12 })
  expect(read({ stackMm: '24' }, DIRECT, 'imperial').lengths).toEqual({ stackMm: 609.6 })
})

test(
  'against a wall setback is wall to axle minus wall to nose; from the nose the saddle’s ' + 'own length is added',
  () => {
    expect(read({ wallAxle: '900', wallNose: '845' }, { setback: 'wall', reach: 'seat' }).lengths).toEqual({
      setbackMm: 55,
    })
    expect(read({ noseReach: '480' }, { setback: 'direct', reach: 'nose' }).lengths).toEqual({ reachMm: 630 })
  },
)

test('fields of the way not chosen are not read', () => {
  expect(read({ setbackMm: '40', wallAxle: 'x', noseReach: '9', reachMm: '600' })).toEqual({
    lengths: { setbackMm: 40, reachMm: 600 },
    wrong: '',
  })
})

test('nothing, half a wall, and what is no length are reported in words', () => {
  expect(read({}).wrong).toBe('Type at least one of the four lengths.')
  expect(read({ wallAxle: '900' }, { setback: 'wall', reach: 'seat' }).wrong).toMatch(/both are needed/)
  expect(read({ stackMm: '7o0' }).wrong).toBe('“7o0” is not a length. Write 172, 1.72 m or 5′8″.')
})
