import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { compiledValidators, publishedTypeFileSchema } from '../../scripts/compiledValidators'

const committed = readFileSync(join(__dirname, '../../core/operations/validators.generated.cjs'), 'utf8')

test('the committed validators are those of the schemas', () => {
  expect(committed).toBe(compiledValidators())
})

test('they make no code at run time, which the content security policy forbids', () => {
  expect(committed).not.toMatch(/new Function|eval\(/)
})

test('the published schema of the type file is that of the schemas', () => {
  expect(readFileSync(join(__dirname, '../../docs/schemas/bike-types.schema.json'), 'utf8')).toBe(publishedTypeFileSchema())
})
