import { schemas } from './schemas'
import { REASON, type Issue } from '../messages/words/issues'

/** Fields an object may have beyond those it should before it is refused as a whole instead of field by field. */
const MAX_UNKNOWN_FIELDS = 120

type Schema = Readonly<{
  $ref?: string
  properties?: Readonly<Record<string, Schema>>
  items?: Schema
  maxItems?: number
  if?: Readonly<{ required?: readonly string[]; type?: string }>
  then?: Schema
  else?: Schema
  allOf?: readonly unknown[]
}>

/**
 * What makes a value too large for its schema: lists beyond `maxItems`, objects with far more fields than they have.
 * Checked before the validators, which look at every item and report every issue, so that their work stays bounded by
 * the schema's own limits for any input. Linear in what lies within the limits; stops at the first excess.
 */
export function sizeIssues(name: string, value: unknown, pointer = ''): Issue[] {
  return excessOf(schemas[name] as Schema, value, pointer) ?? []
}

/** The same for a schema that is not one of the core's. */
export const sizeIssuesOf = (schema: object, value: unknown): Issue[] => excessOf(schema as Schema, value, '') ?? []

function excessOf(schema: Schema | undefined, value: unknown, at: string): Issue[] | null {
  if (!schema || typeof value !== 'object' || value === null) return null
  if (schema.$ref) return excessOf(schemas[schema.$ref] as Schema, value, at)
  if (schema.if && (schema.then || schema.else))
    return excessOf(isSatisfied(schema.if, value) ? schema.then : schema.else, value, at)
  if (Array.isArray(value)) {
    if (schema.maxItems !== undefined && value.length > schema.maxItems)
      return [{ pointer: at, reason: REASON.tooLong(schema.maxItems) }]
    return firstOf(value, (item, i) => excessOf(schema.items, item, `${at}/${i}`))
  }
  const properties = (schema.allOf ? kindOf(value) : schema).properties ?? {}
  const count = Object.keys(value).length
  if (count > Object.keys(properties).length + MAX_UNKNOWN_FIELDS)
    return [{ pointer: at, reason: REASON.tooManyFields(count) }]
  return firstOf(Object.entries(properties), ([key, inner]) =>
    excessOf(inner, (value as Record<string, unknown>)[key], `${at}/${key}`),
  )
}

/** The schema of a row of evidence's own kind; that of an unknown kind has no fields. */
const kindOf = (row: object): Schema =>
  'kind' in row && typeof row.kind === 'string' && Object.hasOwn(schemas, row.kind) ? (schemas[row.kind] as Schema) : {}

const isSatisfied = (condition: NonNullable<Schema['if']>, value: object): boolean =>
  (condition.required ?? []).every((key) => Object.hasOwn(value, key))

function firstOf<T>(items: readonly T[], issuesOf: (item: T, i: number) => Issue[] | null): Issue[] | null {
  for (let i = 0; i < items.length; i++) {
    const found = issuesOf(items[i], i)
    if (found) return found
  }
  return null
}
