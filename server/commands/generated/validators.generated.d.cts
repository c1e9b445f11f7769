import type { DefinedError } from 'ajv'

type Validator = ((value: unknown) => boolean) & { errors?: DefinedError[] | null }
/** One validator per command and query, by `validatorName`. */
declare const validators: Readonly<Record<string, Validator>>
export = validators
