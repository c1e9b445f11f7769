import { axisSchema, bikeSchema, bikeTypeSchema } from '../bikes/bike/bike'
import { blocksSchema } from '../classes/plan/blocksSchema'
import { marksSchema, pointSchema } from '../base/conventions'
import { evidenceSchema, KINDS } from '../riders/evidence/registry'
import { roomPlanSchema, floorPositionSchema } from '../classes/planning/roomPlan'
import { recommendSchema } from '../setups/recommend/request/request'
import { aloneSchema } from '../setups/alone/alone'
import { accommodationSchema } from './requests/accommodation'
import { afterChangeSchema } from './requests/afterChange'
import { bodySchema } from './requests/body'
import { calibrateSchema } from './requests/calibrate'
import { explainSchema } from './requests/explain'
import { learnSchema } from './requests/learn'
import { machineResidualsSchema } from './requests/machineResiduals'
import { misSetSchema } from './requests/misSet'
import { planSchema } from './requests/plan'
import { placeSchema } from './requests/place'
import { poseSchema } from './requests/pose'
import { studioSettingsSchema } from './requests/studioSettings'
import { suggestionsSchema } from './requests/suggestions'
import { translateSchema } from './requests/translate'
import { carriedSetSchema, riderFileSchema } from '../riders/riderFile/riderFile'
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
  alone: aloneSchema,
  body: bodySchema,
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
  stand: floorPositionSchema,
  ...Object.fromEntries(Object.values(KINDS).map(({ kind, schema }) => [kind, schema])),
  typeFile: typeFileSchema,
  riderFile: riderFileSchema,
  carriedSet: carriedSetSchema,
  point: pointSchema,
  axis: axisSchema,
  marks: marksSchema,
  bike: bikeSchema,
  bikeType: bikeTypeSchema,
  evidence: evidenceSchema,
}
