import type { DefinedError } from 'ajv'
import type { AxisName, Label } from '../../base/conventions'
import { AXIS_NAME, formatNearestLabels } from './phrases'

/** One thing wrong with a request: where (JSON pointer) and why, in words. */
export type Issue = Readonly<{ pointer: string; reason: string }>

/** Why something is an issue, by code; beside these there are those of the schema, below. */
export const REASON = Object.freeze({
  unknownOperation: (name: string, available: readonly string[]) =>
    `there is no operation ${name}; there are ${available.join(', ')}`,
  notJson: (message: string) => `this is not JSON: ${message}`,
  tooLong: (most: number) => `is too long: at most ${most}`,
  tooManyFields: (count: number) => `has ${count} fields: far too many`,
  tooCostly: (most: number) => `too many for this many rows: rows times samples may be at most ${most}`,
  tookTooLong: (seconds: number) => `took longer than ${seconds} s and was stopped; ask for fewer samples`,
  queueFull: () => 'too many are being answered at once; ask again in a moment',
  rulerEndsBelow: () => 'lies below the ruler’s min',
  zeroUnit: () => 'must not be 0',
  tooManySteps: (most: number) => `gives more than ${most} steps`,
  labelTwice: (label: Label) => `${label} stands twice on this scale`,
  notInOrder: () => 'does not follow in order along the axis',
  noSuchAxis: (typeName: string, axis: AxisName) => `${typeName} has no ${AXIS_NAME[axis]}`,
  noSuchLabel: (axis: AxisName, label: Label, nearest: readonly Label[]) =>
    `the ${AXIS_NAME[axis]} has no mark ${label}; ${formatNearestLabels(nearest)}`,
  movesNothing: () => 'moves nothing: its marks all lie at one place',
  oneLine: (other: AxisName) => `runs along the same line as the ${AXIS_NAME[other]}: one of the two is enough`,
  noCrankLength: ([least, most]: readonly [number, number]) =>
    `has a mark without a length of cranks: ${least} to ${most} mm is possible`,
  windowReversed: () => 'its first angle must not exceed its second',
  windowNarrow: (least: number) => `is narrower than ${least}°: no rider could be put into it`,
  needsSeatHeight: (about: 'saddle' | 'landmark') =>
    `${about === 'saddle' ? 'a check on the bike' : 'a landmark at a mark'} needs the seat height it was taken at`,
  noSuchGrip: (typeName: string, grip: string, available: readonly string[]) =>
    available.length === 0
      ? `${typeName} names no hand positions`
      : `${typeName} has no hand position ${grip}; it has ${available.join(', ')}`,
  betweenTheBones: () =>
    'is out of range: at most 90 is possible. A figure like 147 is the angle between the bones; the bend is 33',
  inseamAsLongAsBody: () => 'an inseam cannot be as long as the whole body',
  idTwice: (id: string) => `${id} stands twice in this list`,
  noSuchType: (name: string, available: readonly string[]) =>
    `there is no type ${name} here; there are ${available.join(', ') || 'none'}`,
  marksNeedType: () => 'is missing: marks mean nothing without the type of the bike',
  hasNoSide: (complaint: string) => `${complaint} is neither left nor right`,
  noSuchRegion: (region: string, available: readonly string[]) =>
    `there is no region ${region}; there are ${available.join(', ')}`,
  noSuchSign: (what: string, available: readonly string[]) =>
    `“${what}” is not seen there; there are ${available.join(', ')}`,
  startsBeforeDoors: () => 'lies before the doors open',
  nameTwice: (name: string) => `${name} stands twice in this file`,
  saddleBelowAxle: () => 'puts the saddle below the crank axle at its lowest mark',
  barsBelowAxle: () => 'puts the bars below the crank axle at their lowest mark',
})

const ARTICLE: Readonly<Record<string, string>> = {
  object: 'an object',
  array: 'a list',
  string: 'a text',
  number: 'a number',
  integer: 'a whole number',
  boolean: 'true or false',
}

/**
 * Ajv's errors in words; errors that only report a failed branch are left out, since the branch's own issues are there.
 */
export function issuesFromAjv(errors: readonly DefinedError[]): Issue[] {
  return errors.filter((error) => error.keyword !== 'if').map(issueFromAjv)
}

function issueFromAjv(error: DefinedError): Issue {
  const at = error.instancePath
  switch (error.keyword) {
    case 'required':
      return { pointer: `${at}/${escaped(error.params.missingProperty)}`, reason: 'is missing' }
    case 'additionalProperties':
      return { pointer: `${at}/${escaped(error.params.additionalProperty)}`, reason: 'is not a field of this request' }
    case 'type':
      return { pointer: at, reason: `must be ${ARTICLE[String(error.params.type)] ?? error.params.type}` }
    case 'minimum':
    case 'exclusiveMinimum':
      return {
        pointer: at,
        reason:
          `is out of range: ${error.keyword === 'minimum' ? 'at least' : 'more than'} ` +
          `${error.params.limit} is possible`,
      }
    case 'maximum':
      if (error.params.limit === 90 && at.endsWith('/deg')) return { pointer: at, reason: REASON.betweenTheBones() }
      return { pointer: at, reason: `is out of range: at most ${error.params.limit} is possible` }
    case 'exclusiveMaximum':
      return { pointer: at, reason: `is out of range: at most ${error.params.limit} is possible` }
    case 'enum':
      return { pointer: at, reason: `must be one of ${error.params.allowedValues.join(', ')}` }
    case 'minItems':
    case 'minLength':
      return {
        pointer: at,
        reason: error.params.limit === 1 ? 'must not be empty' : `needs at least ${error.params.limit}`,
      }
    case 'maxItems':
    case 'maxLength':
      return { pointer: at, reason: `is too long: at most ${error.params.limit}` }
    case 'const':
      return { pointer: at, reason: `must be ${JSON.stringify(error.params.allowedValue)}` }
    case 'uniqueItems':
      return { pointer: at, reason: 'names one thing twice' }
    default:
      return { pointer: at, reason: error.message ?? 'is not as it should be' }
  }
}

/** JSON pointer escaping (RFC 6901). */
const escaped = (key: string): string => key.replaceAll('~', '~0').replaceAll('/', '~1')
