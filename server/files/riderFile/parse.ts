import { inflateRawSync, deflateRawSync } from 'node:zlib'
import Ajv from 'ajv'
import { issuesFromAjv, REASON, type Issue } from '../../../core/messages/words/issues'
import { schemas } from '../../../core/operations/schemas'
import { sizeIssues } from '../../../core/operations/sizeIssues'
import {
  MAX_RIDER_FILE_LENGTH,
  MAX_SETS,
  RIDER_FILE_FORMAT,
  RIDER_FILE_VERSION,
  carriedSetSchema,
  type CarriedSet,
  type RiderFile,
} from '../../../core/riders/riderFile/riderFile'

/** Numbers of a file of a later version: of it only the sets are read that have the form of this one. */
export type NewerRiderFile = Readonly<{
  rider: Readonly<{ name: string }>
  studio: Readonly<{ name: string }>
  issuedAt: string
  sets: readonly CarriedSet[]
}>

/**
 * `read`: all of it follows the schema; `newer`: of a later version, with what can be read of its numbers; `refused`:
 * with every issue and its place.
 */
export type ParsedRiderFile =
  | Readonly<{ outcome: 'read'; file: RiderFile }>
  | Readonly<{ outcome: 'newer'; version: number; file: NewerRiderFile }>
  | Readonly<{ outcome: 'tooLarge' | 'otherFormat' }>
  | Readonly<{ outcome: 'refused'; issues: readonly Issue[] }>

const ajv = new Ajv({ allErrors: true, strict: false })
ajv.addSchema(schemas.point, 'point')
const isRiderFile = ajv.compile<RiderFile>(schemas.riderFile)
const isCarriedSet = ajv.compile<CarriedSet>(schemas.carriedSet)

/** How the text of a QR code begins; what follows is the file's JSON, deflated (RFC 1951), in base64url. */
const CODE_PREFIX = 'RIDER1:'

/** A file as the text of a QR code. */
export const codeTextOf = (file: RiderFile): string =>
  CODE_PREFIX + deflateRawSync(JSON.stringify(file), { level: 9 }).toString('base64url')

/** The JSON of a code's text, any other text as it is; null where the code's text was cut or is too large. */
function jsonOf(text: string): string | null {
  if (!text.startsWith(CODE_PREFIX)) return text
  try {
    const bytes = Buffer.from(text.slice(CODE_PREFIX.length), 'base64url')
    return inflateRawSync(bytes, { maxOutputLength: MAX_RIDER_FILE_LENGTH }).toString('utf8')
  } catch {
    return null
  }
}

/** Reads a rider's own file or the text of its code, without looking at its signature. */
export function parseRiderFile(text: string): ParsedRiderFile {
  if (text.length > MAX_RIDER_FILE_LENGTH) return { outcome: 'tooLarge' }
  const json = jsonOf(text.trim())
  if (json === null) return { outcome: 'refused', issues: [{ pointer: '', reason: CUT }] }
  let file: unknown
  try {
    file = JSON.parse(json)
  } catch (error) {
    return { outcome: 'refused', issues: [{ pointer: '', reason: REASON.notJson((error as Error).message) }] }
  }
  const { format, formatVersion } = (file ?? {}) as Partial<RiderFile>
  if (format !== RIDER_FILE_FORMAT) return { outcome: 'otherFormat' }
  if (typeof formatVersion === 'number' && formatVersion > RIDER_FILE_VERSION)
    return newer(file as Record<string, unknown>)
  const tooLarge = sizeIssues('riderFile', file)
  if (tooLarge.length > 0) return { outcome: 'refused', issues: tooLarge }
  return isRiderFile(file)
    ? { outcome: 'read', file }
    : { outcome: 'refused', issues: issuesFromAjv((isRiderFile.errors ?? []) as never) }
}

const CUT = 'the text of the code was cut short or changed'
const SET_FIELDS = Object.keys(carriedSetSchema.properties)

function newer({ formatVersion, rider, studio, issuedAt, sets }: Record<string, unknown>): ParsedRiderFile {
  const nameOf = (of: unknown) => String((of as { name?: unknown } | null)?.name ?? '').slice(0, 120)
  const known = (Array.isArray(sets) ? sets.slice(0, MAX_SETS) : [])
    .map((set: unknown) =>
      Object.fromEntries(SET_FIELDS.flatMap((field) => fieldOf(set, field).map((value) => [field, value]))),
    )
    .filter((set): set is typeof set & CarriedSet => isCarriedSet(set))
  return {
    outcome: 'newer',
    version: Number(formatVersion),
    file: { rider: { name: nameOf(rider) }, studio: { name: nameOf(studio) }, issuedAt: String(issuedAt), sets: known },
  }
}

const fieldOf = (of: unknown, field: string): unknown[] => {
  const value = typeof of === 'object' && of !== null ? (of as Record<string, unknown>)[field] : undefined
  return value === undefined ? [] : [value]
}
