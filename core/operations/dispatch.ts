import { issuesFromAjv, REASON, type Issue } from '../messages/words/issues'
import { accommodation, accommodationIssues } from './requests/accommodation'
import { afterChange, afterChangeIssues } from './requests/afterChange'
import { alone, aloneIssues } from './requests/alone'
import { body, bodyIssues } from './requests/body'
import { calibrate, calibrateIssues } from './requests/calibrate'
import { costIssues } from './cost'
import { errorResponse, uniqueByPointer, type ErrorResponse } from './errorResponse'
import { explain, explainIssues } from './requests/explain'
import { learn, learnIssues } from './requests/learn'
import { machineResiduals } from './requests/machineResiduals'
import { misSet, misSetIssues } from './requests/misSet'
import { place, placeIssues } from './requests/place'
import { plan, planIssues } from './requests/plan'
import { pose } from './requests/pose'
import { recommend, recommendIssues } from './requests/recommend'
import { sizeIssues } from './sizeIssues'
import { schoolIssues, type StudioSettings } from './requests/studioSettings'
import { suggestions, suggestionsIssues } from './requests/suggestions'
import { translate, translateIssues } from './requests/translate'
import * as generated from './validators.generated.cjs'

/** An operation: its schema's validator, what is checked beyond the schema, and the answer to what passed both. */
type Operation = Readonly<{
  validate: typeof generated.place
  issues: (request: never) => Issue[]
  answer: (request: never) => object
}>

const OPERATIONS: Readonly<Record<string, Operation>> = {
  place: { validate: generated.place, issues: placeIssues, answer: place },
  pose: { validate: generated.pose, issues: () => [], answer: pose },
  calibrate: { validate: generated.calibrate, issues: calibrateIssues, answer: calibrate },
  learn: { validate: generated.learn, issues: learnIssues, answer: learn },
  translate: { validate: generated.translate, issues: translateIssues, answer: translate },
  afterChange: { validate: generated.afterChange, issues: afterChangeIssues, answer: afterChange },
  misSet: { validate: generated.misSet, issues: misSetIssues, answer: misSet },
  machineResiduals: { validate: generated.machineResiduals, issues: () => [], answer: machineResiduals },
  accommodation: { validate: generated.accommodation, issues: accommodationIssues, answer: accommodation },
  plan: { validate: generated.plan, issues: planIssues, answer: plan },
  explain: { validate: generated.explain, issues: explainIssues, answer: explain },
  suggestions: { validate: generated.suggestions, issues: suggestionsIssues, answer: suggestions },
  recommend: { validate: generated.recommend, issues: recommendIssues, answer: recommend },
  body: { validate: generated.body, issues: bodyIssues, answer: body },
  alone: { validate: generated.alone, issues: aloneIssues, answer: alone },
}
export const OPERATION_NAMES = Object.keys(OPERATIONS)

/**
 * The API boundary of the core: checks a request and answers it. Issues come back as a value with every issue found;
 * a throw is a bug. Route handlers, workers, server actions and the command line all call it.
 */
export function dispatch(operation: string, request: unknown): object | ErrorResponse {
  const found = Object.hasOwn(OPERATIONS, operation) ? OPERATIONS[operation] : undefined
  if (!found) {
    const reason = REASON.unknownOperation(operation, OPERATION_NAMES)
    return errorResponse('unknownOperation', [{ pointer: '', reason }])
  }
  const issues = requestIssues(operation, request)
  return issues.length > 0 ? errorResponse('badRequest', uniqueByPointer(issues)) : found.answer(request as never)
}

/** Issues of a request of an existing operation, without an answer. */
export function requestIssues(name: string, request: unknown): Issue[] {
  const { validate, issues } = OPERATIONS[name]
  const tooLarge = sizeIssues(name, request)
  if (tooLarge.length > 0) return tooLarge
  const costly = costIssues(name, request)
  if (costly.length > 0) return costly
  if (validate(request)) return issues(request as never)
  return issuesFromAjv(validate.errors ?? [])
}

/** Issues of a studio's settings, for what writes them to the database. */
export function settingsIssues(settings: unknown): Issue[] {
  const tooLarge = sizeIssues('studioSettings', settings)
  if (tooLarge.length > 0) return tooLarge
  if (!generated.studioSettings(settings)) return uniqueByPointer(issuesFromAjv(generated.studioSettings.errors ?? []))
  return schoolIssues((settings as StudioSettings).school, '/school')
}

/** Issues of a class's blocks, a room's plan or a bike's place in it, for what writes them to the database. */
export function shapeIssues(name: 'blocks' | 'roomPlan' | 'stand', value: unknown): Issue[] {
  const tooLarge = sizeIssues(name, value)
  if (tooLarge.length > 0) return tooLarge
  const validate = generated[name]
  return validate(value) ? [] : uniqueByPointer(issuesFromAjv(validate.errors ?? []))
}

/** Issues of one row of evidence alone, for what writes rows to the database. */
export function evidenceIssues(row: unknown): Issue[] {
  const tooLarge = sizeIssues('evidence', row)
  if (tooLarge.length > 0) return tooLarge
  return generated.evidence(row) ? [] : uniqueByPointer(issuesFromAjv(generated.evidence.errors ?? []))
}
