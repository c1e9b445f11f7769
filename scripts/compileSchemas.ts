/**
 * Compiles the wire format's schemas to plain code and writes the published schema of the type file: `npm run schemas`.
 * A test holds the committed files to their source.
 */
import { writeFileSync } from 'node:fs'
import { compiledValidators, publishedArchiveSchema, publishedTypeFileSchema } from './compiledValidators'

writeFileSync(new URL('../core/operations/validators.generated.cjs', import.meta.url), compiledValidators())
writeFileSync(new URL('../docs/schemas/studio-archive.schema.json', import.meta.url), publishedArchiveSchema())
writeFileSync(new URL('../docs/schemas/bike-types.schema.json', import.meta.url), publishedTypeFileSchema())
