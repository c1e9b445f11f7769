/** @jest-environment node */
import SwaggerParser from '@apidevtools/swagger-parser'
import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { OPERATION_NAMES } from '../../core/operations/dispatch'
import { compiledInputValidators } from '../../scripts/compiledValidators'
import { publishedOpenApi } from '../../scripts/openApi'
import { CODE_COMMANDS, COMMANDS, OWN_COMMANDS, QUERIES } from '../../server/commands/registry'

const root = join(__dirname, '../..')
const PUBLISHED = join(root, 'docs/schemas/openapi.json')

test('the committed validators and document are those of the registry', () => {
  const validators = join(root, 'server/commands/generated/validators.generated.cjs')
  expect(readFileSync(validators, 'utf8')).toBe(compiledInputValidators())
  expect(readFileSync(PUBLISHED, 'utf8')).toBe(publishedOpenApi())
})

// OpenAPI Specification 3.1.0, by its published JSON Schema.
test('the document is valid OpenAPI 3.1, with a path for every operation and every command', async () => {
  const { paths } = await SwaggerParser.validate(PUBLISHED)
  const expected = [...OPERATION_NAMES, ...Object.keys(COMMANDS).map((name) => `commands/${name}`)]
  expect(Object.keys(paths!).sort()).toEqual(expected.map((name) => `/api/v1/${name}`).sort())
})

test('every export of a file of commands is in the registry, under a name of that file’s own', () => {
  const others = /^(defineCommand|generated|onFloor|receipts|registry|runCommand|takeEntry|useCases)/
  const files = readdirSync(join(root, 'server/commands'))
    .filter((file) => !others.test(file) && !file.includes('.test.'))
    .map((file) => file.replace(/\.ts$/, ''))
  const all = [COMMANDS, OWN_COMMANDS, CODE_COMMANDS, QUERIES].flatMap((some) => Object.keys(some))
  for (const file of files) {
    // eslint-disable-next-line @typescript-eslint/no-require-imports -- whatever the file exports
    const exported = Object.values(require(join(root, 'server/commands', file)) as Record<string, { name: string }>)
    expect(exported.map(({ name }) => name).filter((name) => !all.includes(name))).toEqual([])
    expect(exported.every(({ name }) => name.startsWith(`${file}.`))).toBe(true)
  }
  expect(new Set(all.map((name) => name.split('.')[0]))).toEqual(new Set(files))
})
