import { getTableName } from 'drizzle-orm'
import type { AnyMySqlColumn } from 'drizzle-orm/mysql-core'
import { careIntervalsSchema } from '../../core/bikes/care/care'
import { saddleModelSchema } from '../../core/bikes/saddles/saddle'
import { equipmentSchema } from '../../core/bikes/bike/equipment'
import { limitSchema } from '../../core/riders/limits/limits'
import { programmeSchema } from '../../core/comfort/programme/programme'
import { planSchema } from '../../core/riders/plans/plan'
import { retentionSchema } from '../../core/riders/retention/retention'
import { schemas } from '../../core/operations/schemas'
import { plainShapeOf } from '../platform/sealing/sealed'
import { ADDED_COLUMNS, SECTIONS, type ArchiveSection } from './archiveSections'

export const ARCHIVE_FORMAT = 'yielding-saddle-archive'
export const ARCHIVE_VERSION = 9
/** Versions that can still be read. */
export const READABLE_VERSIONS: readonly number[] = [2, 3, 4, 5, 6, 7, 8, ARCHIVE_VERSION]

/** Schemas of the core that parts of an archive are made of. */
const PARTS = ['bikeType', 'axis', 'point', 'bike', 'marks', 'roomPlan', 'blocks'] as const

/** The schema of one row, by the table's own columns. */
function rowSchema({ name: section, columns, shapes }: ArchiveSection): object {
  const properties = Object.fromEntries(
    Object.entries(columns).map(([name, column]) => [
      name,
      cellSchema(column, shapes[name], BOUNDS[`${section}.${name}`]),
    ]),
  )
  const added = ADDED_COLUMNS[section] ?? []
  const required = Object.keys(columns).filter((name) => !added.includes(name))
  return { type: 'object', additionalProperties: false, required, properties }
}

/** Numbers that mean something only between these. */
const BOUNDS: Readonly<Record<string, readonly [number, number]>> = {
  'bikes.number': [1, 9999],
  'notes.score': [0, 10],
  'notes.hands': [1, 3],
  'complaints.strength': [0, 10],
  'trials.ratingBefore': [0, 10],
  'trials.weeks': [1, 2],
  'trialRatings.rating': [0, 10],
  'classes.hands': [1, 20],
  'classes.doorsMin': [0, 180],
}

/** What a column of whole numbers takes; other numbers beyond this are no lengths, angles or counts of a studio. */
const MAX_INT = 2_147_483_647
const MAX_NUMBER = 1e9

function cellSchema(
  column: AnyMySqlColumn,
  shape: string | undefined,
  bounds: readonly [number, number] | undefined,
): object {
  const [minimum, maximum] = bounds ?? []
  const own = shape
    ? { $ref: `#/definitions/${shape}` }
    : { ...plainSchema(column), ...(bounds && { minimum, maximum }) }
  return column.notNull ? own : { anyOf: [own, { type: 'null' }] }
}

/** A member, a type, a room or a class is called something. */
const NAMES: ReadonlySet<string> = new Set(['name', 'title'])

function plainSchema(column: AnyMySqlColumn): object {
  const sealedShape = plainShapeOf(getTableName(column.table), column.name)
  if (sealedShape) return sealedShape
  if (column.enumValues && column.enumValues.length > 0) return { enum: [...column.enumValues] }
  switch (column.dataType) {
    case 'date':
      return { type: 'string', pattern: '^\\d{4}-\\d{2}-\\d{2}T\\d{2}:\\d{2}:\\d{2}\\.\\d{3}Z$' }
    case 'number':
      return /^(tiny|small|medium|big)?int/.test(column.getSQLType())
        ? { type: 'integer', minimum: -MAX_INT, maximum: MAX_INT }
        : { type: 'number', minimum: -MAX_NUMBER, maximum: MAX_NUMBER }
    case 'boolean':
      return { type: 'boolean' }
    case 'json':
      return { type: ['object', 'array'] }
    default: {
      const { length } = column as unknown as { length?: number }
      const named = NAMES.has(column.name) && { minLength: 1, pattern: '\\S' }
      return { type: 'string', ...named, ...(length && { maxLength: length }) }
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
    name: { type: 'string', minLength: 1, pattern: '\\S', maxLength: 120 },
    place: { type: 'string', maxLength: 120 },
    timeZone: { type: 'string', maxLength: 60 },
    school: { type: 'object' },
    costs: { anyOf: [{ type: 'object' }, { type: 'null' }] },
    learns: { type: 'boolean' },
    referral: { anyOf: [{ type: 'string', maxLength: 1000 }, { type: 'null' }] },
    // Since version 7.
    retention: { anyOf: [retentionSchema, { type: 'null' }] },
    // Since version 9.
    careIntervals: { anyOf: [careIntervalsSchema, { type: 'null' }] },
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
      careIntervals: inside(careIntervalsSchema),
      saddleModel: inside(saddleModelSchema),
      limit: inside(limitSchema),
      plan: inside(planSchema),
      programme: inside(programmeSchema),
      ...Object.fromEntries(PARTS.map((part) => [part, inside(schemas[part])])),
    },
  }
}
