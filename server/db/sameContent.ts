import { isDeepStrictEqual } from 'node:util'

/** Whether two values say the same once written as JSON: order of keys, absent and undefined fields do not count. */
export const sameContent = (a: unknown, b: unknown): boolean => isDeepStrictEqual(asJson(a), asJson(b))

const asJson = (value: unknown): unknown => JSON.parse(JSON.stringify(value ?? null))
