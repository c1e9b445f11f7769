import { Type, type TObject, type TProperties } from '@sinclair/typebox'
import { marksRef, type Marks, type Point } from '../conventions'
import type { SingleLikelihood } from '../inference/likelihood'
import { closed, oneOf, type Plain } from '../schema'
import type { School } from '../school/school'

/**
 * What every kind may have: the marks it was seen at (axes left out stand where they last stood), and on which side.
 */
type Common = Readonly<{ at?: Marks; side?: 'left' | 'right' }>

/** Where things stood when a row was seen: `spacingMm` is the step of the seat's marks, `soleMm` the sole worn then. */
export type ReadingContext = Readonly<{
  seat: Point
  axleHeightMm: number
  spacingMm: number
  soleMm: number
  school: School
}>

/** Steps of a set-up at which a kind is asked for. */
export type AskedAt = 'talk' | 'beside' | 'knee' | 'cranks'

type Definition<K extends string, F extends TProperties> = Readonly<{
  kind: K
  /** Its fields beside those that all kinds share. */
  fields: F
  /** Its name as spoken. */
  name: string
  /**
   * What it is about: the body alone; a landmark of it held against the bike, or a check in the saddle, which both need
   * the seat height they were taken at; or something done or told, which says nothing of the body.
   */
  about: 'body' | 'landmark' | 'saddle' | 'reported'
  /** Where the set-up asks for it; null where it comes about by itself. */
  askedAt: AskedAt | null
  /** Its measurement model; null for what says nothing of the body, or is not to count. */
  likelihood: (row: Common & Readonly<{ kind: K }> & Plain<TObject<F>>, seen: ReadingContext) => SingleLikelihood | null
}>

/** One kind of evidence: everything the product knows of it, with its schema made of its fields. */
export function defineKind<const K extends string, F extends TProperties>(definition: Definition<K, F>) {
  const { kind, fields } = definition
  const schema = closed({
    kind: Type.Unsafe<K>({ const: kind }),
    at: Type.Optional(marksRef),
    side: Type.Optional(oneOf(['left', 'right'])),
    ...fields,
  })
  return { ...definition, schema }
}
