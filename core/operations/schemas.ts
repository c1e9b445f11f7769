import { axisSchema, bikeSchema, bikeTypeSchema } from '../bike/bike'
import { blocksSchema } from '../classPlan/blocksSchema'
import { marksSchema, pointSchema } from '../conventions'
import { evidenceSchema, KINDS } from '../evidence/registry'
import { roomPlanSchema, standSchema } from '../planning/roomPlan'
import { recommendSchema } from '../recommend/request'
import { accommodationSchema } from './accommodation'
import { afterChangeSchema } from './afterChange'
import { calibrateSchema } from './calibrate'
import { explainSchema } from './explain'
import { learnSchema } from './learn'
import { machineResidualsSchema } from './machineResiduals'
import { misSetSchema } from './misSet'
import { planSchema } from './plan'
import { placeSchema } from './place'
import { poseSchema } from './pose'
import { studioSettingsSchema } from './studioSettings'
import { suggestionsSchema } from './suggestions'
import { translateSchema } from './translate'
import { typeFileSchema } from './typeFileSchema'

/**
 * Every schema (JSON Schema draft-07) by the name that `$ref` knows it by: the operations' requests and their parts.
 * Validators are compiled ahead of time (`npm run schemas`), because a content security policy forbids compiling them
 * in the page.
 */
export const schemas: Readonly<Record<string, object>> = {
  place: placeSchema,
  pose: poseSchema,
  calibrate: calibrateSchema,
  recommend: recommendSchema,
  learn: learnSchema,
  translate: translateSchema,
  afterChange: afterChangeSchema,
  misSet: misSetSchema,
  machineResiduals: machineResidualsSchema,
  accommodation: accommodationSchema,
  plan: planSchema,
  explain: explainSchema,
  suggestions: suggestionsSchema,
  studioSettings: studioSettingsSchema,
  blocks: blocksSchema,
  roomPlan: roomPlanSchema,
  stand: standSchema,
  ...Object.fromEntries(Object.values(KINDS).map(({ kind, schema }) => [kind, schema])),
  typeFile: typeFileSchema,
  point: pointSchema,
  axis: axisSchema,
  marks: marksSchema,
  bike: bikeSchema,
  bikeType: bikeTypeSchema,
  evidence: evidenceSchema,
}
