import Ajv from 'ajv'
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { DEFAULT_EQUIPMENT } from '../../core/bikes/bike/equipment'
import { serializeTypeFile } from '../../core/operations/typeFile'
import { HOLES_BIKE } from '../../core/testing/meanRider'
import { causePage } from '../../scripts/causePage'
import { compiledValidators, publishedArchiveSchema, publishedTypeFileSchema } from '../../scripts/compiledValidators'

const committed = readFileSync(join(__dirname, '../../core/operations/validators.generated.cjs'), 'utf8')

test('the committed validators are those of the schemas', () => {
  expect(committed).toBe(compiledValidators())
})

test('they make no code at run time, which the content security policy forbids', () => {
  expect(committed).not.toMatch(/new Function|eval\(/)
})

test('the published schema of the type file is that of the schemas', () => {
  expect(readFileSync(join(__dirname, '../../docs/schemas/bike-types.schema.json'), 'utf8')).toBe(
    publishedTypeFileSchema(),
  )
})

test('the published schema of an archive is that of the tables', () => {
  const published = readFileSync(join(__dirname, '../../docs/schemas/studio-archive.schema.json'), 'utf8')
  expect(published).toBe(publishedArchiveSchema())
})

test('the page of complaints and causes is that of the table', () => {
  expect(readFileSync(join(__dirname, '../../docs/causes.md'), 'utf8')).toBe(causePage())
})

test('the published schema agrees with the door (JSON Schema draft-07, checked by Ajv)', () => {
  const schema = JSON.parse(publishedTypeFileSchema()) as object
  const validate = new Ajv({ strict: false }).compile(schema)
  const document = { bikeType: HOLES_BIKE, equipment: DEFAULT_EQUIPMENT }
  expect(validate(JSON.parse(serializeTypeFile([document])))).toBe(true)
  expect(validate(JSON.parse(serializeTypeFile([{ ...document, bikeType: { ...HOLES_BIKE, crankMm: -3 } }])))).toBe(
    false,
  )
})
