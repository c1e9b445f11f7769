import { Type, type TObject, type TProperties } from '@sinclair/typebox'
import type { BikeType } from '../../../bikes/bike/bike'
import type { ContactPoints } from '../../../bikes/bike/contactPoints'
import { marksRef, type Marks } from '../../../base/conventions'
import type { Footing } from '../../inference/particles'
import type { SingleLikelihood } from '../../inference/likelihood'
import { between, closed, oneOf, type Plain } from '../../../base/schema'
import type { School } from '../../../base/school/school'

/**
 * Fields that every kind may have: the marks at the time (missing axes are unchanged since the last row), and the side.
 */
type Common = Readonly<{ at?: Marks; side?: 'left' | 'right' }>

/** Error of an observer by eye (wire format): bias (read minus true) and standard deviation. */
export const observerSchema = closed({
  eye: Type.Optional(
    closed({
      kneeBiasDeg: between(-40, 40),
      kneeSdDeg: between(0.5, 40),
      plumbBiasMm: Type.Optional(between(-150, 150)),
      plumbSdMm: Type.Optional(between(0.5, 150)),
    }),
  ),
})
export type Observer = Plain<typeof observerSchema>

/**
 * The situation of a row: the bike's contact points, `spacingMm` the step of the seat's marks, `footing` the sole and
 * the side of the pedal, `observer` the error of the observer.
 */
export type ReadingContext = Readonly<{
  bikeType: BikeType
  contact: Pick<ContactPoints, 'seat' | 'nose' | 'grip'>
  spacingMm: number
  /** How much farther ahead the nose of the machine's own saddle is than its type's, mm. */
  noseDeltaMm?: number
  footing: Footing
  school: School
  observer?: Observer
}>

/** Who took a reading; left out: the instructor. Riders read themselves with a larger error (`SD_BY_RIDER`). */
export const readBySchema = Type.Optional(oneOf(['instructor', 'rider']))

/** Steps of a set-up that offer a kind. */
export type StepOfKind = 'talk' | 'beside' | 'knee' | 'cranks' | 'bars'

type Definition<K extends string, F extends TProperties> = Readonly<{
  kind: K
  /** Its fields beside those that all kinds share. */
  fields: F
  /** Its name as spoken. */
  name: string
  /**
   * What it is about: the body alone; a landmark of it compared with the bike, or a check on the saddle or of the bars,
   * which all need the seat height they were taken at; or something done, reported or wished.
   */
  about: 'body' | 'landmark' | 'saddle' | 'bars' | 'reported'
  /** The step that offers it; null where the system records it. */
  step: StepOfKind | null
  /** Its measurement model; null for rows without information about the body, or excluded ones. */
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
