import type { DefinedError } from 'ajv'

/** One thing wrong with a request: where (JSON pointer) and why, in words. */
export type Fault = Readonly<{ pointer: string; reason: string }>

/** `more` counts the faults beyond the first hundred, which are not spelled out. */
export type FaultAnswer = Readonly<{ error: Readonly<{ kind: FaultKind; faults: readonly Fault[]; more?: number }> }>
export type FaultKind = 'badJson' | 'badRequest' | 'unknownOperation' | 'busy'

/** More than this helps nobody, and a list of thousands is work. */
const MOST_FAULTS = 100

export function faultAnswer(kind: FaultKind, faults: readonly Fault[]): FaultAnswer {
  if (faults.length <= MOST_FAULTS) return { error: { kind, faults } }
  return { error: { kind, faults: faults.slice(0, MOST_FAULTS), more: faults.length - MOST_FAULTS } }
}

/** One fault a place: the first said wins (a kind refused by name is not also called unknown). */
export function withoutRepeats(faults: readonly Fault[]): Fault[] {
  const seen = new Set<string>()
  return faults.filter(({ pointer }) => !seen.has(pointer) && seen.add(pointer))
}

const ARTICLE: Readonly<Record<string, string>> = {
  object: 'an object',
  array: 'a list',
  string: 'a text',
  number: 'a number',
  integer: 'a whole number',
  boolean: 'true or false',
}

/** Ajv's errors in words; what only says that a branch failed is left out, since the branch's own faults are there. */
export function faultsOf(errors: readonly DefinedError[]): Fault[] {
  return errors.filter((error) => error.keyword !== 'if').map(faultOf)
}

function faultOf(error: DefinedError): Fault {
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
        reason: `is out of range: ${error.keyword === 'minimum' ? 'at least' : 'more than'} ${error.params.limit} is possible`,
      }
    case 'maximum':
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
