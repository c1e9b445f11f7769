/** Compiles the wire format's schemas to plain code: `npm run schemas`. A test holds the committed file to its source. */
import { writeFileSync } from 'node:fs'
import { compiledValidators } from './compiledValidators'

writeFileSync(new URL('../core/operations/validators.generated.cjs', import.meta.url), compiledValidators())
