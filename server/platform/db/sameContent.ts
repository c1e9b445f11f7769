import { isDeepStrictEqual } from 'node:util'

/** Deep equality of two values as JSON: the order of keys and undefined fields do not matter. */
export const sameContent = (a: unknown, b: unknown): boolean => isDeepStrictEqual(asJson(a), asJson(b))

const asJson = (value: unknown): unknown => JSON.parse(JSON.stringify(value ?? null))
