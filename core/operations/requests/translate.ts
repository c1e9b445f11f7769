import { Type } from '@sinclair/typebox'
import { bikeRef, bikeTypeRef } from '../../bikes/bike/bike'
import { marksRef } from '../../base/conventions'
import type { evidenceSchema } from '../../riders/evidence/registry'
import type { Issue } from '../../messages/words/issues'
import { formatTranslation } from '../../messages/setups/translation'
import { between, closed, oneOf, refTo, type Plain } from '../../base/schema'
import { schoolSchema } from '../../base/school/school'
import { translateMarks, type Source, type Translation } from '../../setups/translate/translate'
import { UNIT_SYSTEMS } from '../../base/length'
import { bikeIssues, bikeTypeIssues, marksIssues } from './bikeIssues'
import { setupIssues } from './recommend'
import { schoolIssues } from './studioSettings'

/** Numbers of a type. */
const fromMarksSchema = closed({ bikeType: bikeTypeRef, bike: Type.Optional(bikeRef), marks: marksRef })
/** Any bike, a road bike too, by the tape's four lengths; setback is of the nose. */
const fromLengthsSchema = closed({
  lengths: closed({
    saddleHeightMm: between(200, 1500),
    setbackMm: between(-600, 600),
    reachMm: between(-200, 1500),
    stackMm: between(-200, 1600),
  }),
  crankMm: between(50, 300),
  noseAheadMm: between(0, 400),
  pedalSurfaceMm: Type.Optional(between(-50, 100)),
})

/** Request of `translate`. */
export const translateSchema = closed({
  from: Type.Unsafe<Source>({
    type: 'object',
    if: { required: ['lengths'] },
    then: fromLengthsSchema,
    else: fromMarksSchema,
  }),
  to: closed({ bikeType: bikeTypeRef, bike: Type.Optional(bikeRef) }),
  school: Type.Optional(schoolSchema),
  evidence: Type.Optional(Type.Array(refTo<typeof evidenceSchema>('evidence'), { maxItems: 200 })),
  /** How lengths are written in the sentences; the figures beside them stay millimetres. */
  lengths: Type.Optional(oneOf(UNIT_SYSTEMS)),
})
export type TranslateRequest = Plain<typeof translateSchema>
export type TranslateResponse = Translation & Readonly<{ sentence: string; because: string[] }>

/** `translate`: numbers carried to another bike by contact points, with what is left over and why. */
export function translate({ lengths, ...request }: TranslateRequest): TranslateResponse {
  const translation = translateMarks(request)
  return { ...translation, ...formatTranslation(request.to.bikeType, translation, lengths) }
}

export function translateIssues({ from, to, school, evidence = [] }: TranslateRequest): Issue[] {
  const ofTarget = [...bikeTypeIssues(to.bikeType, '/to/bikeType'), ...bikeIssues(to.bikeType, to.bike, '/to/bike')]
  if (!('bikeType' in from)) return [...ofTarget, ...schoolIssues(school ?? {}, '/school')]
  const types = bikeTypeIssues(from.bikeType, '/from/bikeType')
  return [
    ...ofTarget,
    ...schoolIssues(school ?? {}, '/school'),
    ...types,
    ...(types.length > 0
      ? []
      : [
          ...bikeIssues(from.bikeType, from.bike, '/from/bike'),
          ...marksIssues(from.bikeType, from.marks, '/from/marks'),
          ...setupIssues({ bikeType: from.bikeType, evidence }, ''),
        ]),
  ]
}
