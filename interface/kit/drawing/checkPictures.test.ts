import { Type } from '@sinclair/typebox'
import Ajv from 'ajv'
import { closed } from '@/core/base/schema'
import { CHECK_TEXT, type CheckName } from '@/core/messages/setups/checks'
import { LANDMARKS_AT_MARK } from '@/core/riders/evidence/definition/landmarks'
import { PICTURE_LAYERS, PICTURES, pictureOf } from './CheckPicture'

const layer = Type.Unsafe<string>({ enum: Object.keys(PICTURE_LAYERS) })
const within = (maximum: number) => Type.Number({ minimum: 0, maximum })
const pathData = Type.String({ pattern: '^M[-MLlHhVvAaQqSsTtCcZz0-9., ]+$' })
const schema = Type.Record(
  Type.String(),
  Type.Array(
    Type.Union([
      closed({ layer, path: pathData, width: Type.Optional(within(30)) }),
      closed({ layer, circle: Type.Tuple([within(120), within(132), within(40)]) }),
    ]),
    { minItems: 3 },
  ),
)

test('the pictures follow their schema', () => {
  const validate = new Ajv({ allErrors: true, strictTuples: false }).compile(schema)
  expect(validate(PICTURES) ? [] : validate.errors).toEqual([])
  expect(validate({ tape: [{ layer: 'sky', path: 'M1 1' }] })).toBe(false)
})

test('every check and every landmark has a picture, and every picture is drawn for one', () => {
  const checks = Object.keys(CHECK_TEXT) as CheckName[]
  const named = new Set(checks.flatMap((check) => LANDMARKS_AT_MARK.map((landmark) => pictureOf(check, landmark))))
  expect([...named].toSorted()).toEqual(Object.keys(PICTURES).toSorted())
})
