import { Type, type Static, type TProperties, type TSchema } from '@sinclair/typebox'

/**
 * What requests are described with: each description is at once the JSON Schema that is checked and the TypeScript type
 * that is trusted afterwards. Descriptions are next to what they describe; `operations/schemas.ts` gathers them.
 */
export type Plain<S extends TSchema> = DeepReadonly<Static<S>>

type DeepReadonly<T> = T extends readonly unknown[]
  ? { readonly [K in keyof T]: DeepReadonly<T[K]> }
  : T extends object
    ? { readonly [K in keyof T]: DeepReadonly<T[K]> }
    : T

/** An object that has these fields and no others. */
export const closed = <P extends TProperties>(properties: P) => Type.Object(properties, { additionalProperties: false })

/** A number from `minimum` to `maximum`, ends included. */
export const between = (minimum: number, maximum: number) => Type.Number({ minimum, maximum })

/** A length or so that cannot be 0, up to three metres. */
export const positiveMm = Type.Number({ exclusiveMinimum: 0, maximum: 3000 })

/** One of these words. */
export const oneOf = <const V extends readonly string[]>(words: V) => Type.Unsafe<V[number]>({ enum: words })

/** A reference to a schema, by the name it is gathered under. */
export const refTo = <S extends TSchema>(name: string) => Type.Unsafe<Static<S>>({ $ref: name })

/** Exactly two numbers of one kind. */
export const pairOf = (item: TSchema) =>
  Type.Unsafe<[number, number]>({ type: 'array', items: item, minItems: 2, maxItems: 2 })

/** An object without its fields that are there but undefined, as structured clones have them and JSON has not. */
export const defined = <T extends object>(value: T): T =>
  Object.fromEntries(Object.entries(value).filter(([, field]) => field !== undefined)) as T
