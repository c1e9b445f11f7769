/**
 * Compiles the wire format's schemas to plain code, writes the published schemas, and renders the table of complaints
 * and causes as a page: `npm run schemas`. A test compares the committed files with their source.
 */
import { writeFileSync } from 'node:fs'
import { causePage } from './causePage'
import {
  compiledInputValidators,
  compiledValidators,
  publishedArchiveSchema,
  publishedRiderFileSchema,
  publishedTypeFileSchema,
} from './compiledValidators'
import { publishedOpenApi } from './openApi'

writeFileSync(new URL('../core/operations/validators.generated.cjs', import.meta.url), compiledValidators())
writeFileSync(
  new URL('../server/commands/generated/validators.generated.cjs', import.meta.url),
  compiledInputValidators(),
)
writeFileSync(new URL('../docs/schemas/studio-archive.schema.json', import.meta.url), publishedArchiveSchema())
writeFileSync(new URL('../docs/schemas/bike-types.schema.json', import.meta.url), publishedTypeFileSchema())
writeFileSync(new URL('../docs/schemas/rider-file.schema.json', import.meta.url), publishedRiderFileSchema())
writeFileSync(new URL('../docs/schemas/openapi.json', import.meta.url), publishedOpenApi())
writeFileSync(new URL('../docs/causes.md', import.meta.url), causePage())
