import type { AnyMySqlColumn } from 'drizzle-orm/mysql-core'
import { equipmentSchema } from '../../core/bike/equipment'
import { schemas } from '../../core/operations/schemas'
import { SECTIONS, type ArchiveSection } from './archiveSections'

export const ARCHIVE_FORMAT = 'yielding-saddle-archive'
export const ARCHIVE_VERSION = 3
/** Versions that can still be read. */
export const READABLE_VERSIONS: readonly number[] = [2, ARCHIVE_VERSION]

/** Schemas of the core that parts of an archive are made of. */
const PARTS = ['bikeType', 'axis', 'point', 'bike', 'marks', 'roomPlan', 'blocks'] as const

/** The schema of one row, by the table's own columns. */
function rowSchema({ columns, shapes }: ArchiveSection): object {
  const properties = Object.fromEntries(
    Object.entries(columns).map(([name, column]) => [name, cellSchema(column, shapes[name])]),
  )
  return { type: 'object', additionalProperties: false, required: Object.keys(columns), properties }
}

function cellSchema(column: AnyMySqlColumn, shape: string | undefined): object {
  const own = shape ? { $ref: `#/definitions/${shape}` } : plainSchema(column)
  return column.notNull ? own : { anyOf: [own, { type: 'null' }] }
}

function plainSchema(column: AnyMySqlColumn): object {
  if (column.enumValues && column.enumValues.length > 0) return { enum: [...column.enumValues] }
  switch (column.dataType) {
    case 'date':
      return { type: 'string', pattern: '^\\d{4}-\\d{2}-\\d{2}T\\d{2}:\\d{2}:\\d{2}\\.\\d{3}Z$' }
    case 'number':
      return { type: 'number' }
    case 'boolean':
      return { type: 'boolean' }
    case 'json':
      return { type: ['object', 'array'] }
    default: {
      const { length } = column as unknown as { length?: number }
      return { type: 'string', ...(length && { maxLength: length }) }
    }
  }
}

/** `$ref`s of the core's schemas name each other; here they are parts of one document. */
const inside = (schema: object): object =>
  JSON.parse(JSON.stringify(schema).replaceAll(/"\$ref":"(\w+)"/g, '"$ref":"#/definitions/$1"')) as object

const STUDIO = {
  type: 'object',
  additionalProperties: false,
  required: ['name', 'place', 'timeZone', 'school', 'costs', 'learns'],
  properties: {
    name: { type: 'string', maxLength: 120 },
    place: { type: 'string', maxLength: 120 },
    timeZone: { type: 'string', maxLength: 60 },
    school: { type: 'object' },
    costs: { anyOf: [{ type: 'object' }, { type: 'null' }] },
    learns: { type: 'boolean' },
    referral: { anyOf: [{ type: 'string', maxLength: 1000 }, { type: 'null' }] },
  },
}

/** The schema of an archive (JSON Schema draft-07), as published in `docs/schemas/`. */
export function archiveSchema(): object {
  const rows = Object.fromEntries(SECTIONS.map((one) => [`${one.name}Row`, rowSchema(one)]))
  return {
    $schema: 'http://json-schema.org/draft-07/schema#',
    title: 'A whole studio, as Yielding Saddle hands it on',
    description:
      'Every row of a studio but what people sign in with. Times are UTC. Lengths in millimetres, angles in degrees; ' +
      'marks are labels as printed on the bike. Sections may come in any order.',
    type: 'object',
    additionalProperties: false,
    required: ['format', 'formatVersion', 'studio', ...SECTIONS.map(({ name }) => name)],
    properties: {
      format: { const: ARCHIVE_FORMAT },
      formatVersion: { const: ARCHIVE_VERSION },
      studio: { type: 'array', minItems: 1, maxItems: 1, items: { $ref: '#/definitions/studioRow' } },
      ...Object.fromEntries(
        SECTIONS.map(({ name }) => [name, { type: 'array', items: { $ref: `#/definitions/${name}Row` } }]),
      ),
    },
    definitions: {
      studioRow: STUDIO,
      ...rows,
      equipment: inside(equipmentSchema),
      ...Object.fromEntries(PARTS.map((part) => [part, inside(schemas[part])])),
    },
  }
}
