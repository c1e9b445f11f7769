import { stringify } from 'csv-stringify/sync'
import { AXES, isCommon } from '../../core/base/adjustments'
import { axesOf } from '../../core/bikes/bike/bike'
import { referenceMarks } from '../../core/bikes/bike/referenceMarks'
import { COLUMN_HEADING } from '../../core/setups/openFiles/columns'
import type { MemberCells, MemberColumn } from '../../core/setups/openFiles/memberRow'
import type { Scope } from '../platform/accounts/scope'
import { listTypes } from '../bikes/versions'
import type { DbExecutor } from '../platform/db/connection'

const WHO: readonly MemberColumn[] = ['memberNumber', 'firstName', 'lastName', 'email', 'statureMm']

/** Invented people; the last one without numbers, as a list may well have it. */
const PEOPLE: readonly MemberCells[] = [
  { memberNumber: 'sample-1', firstName: 'Ada', lastName: 'Marram', email: 'ada@example.org', statureMm: '168 cm' },
  { memberNumber: 'sample-2', firstName: 'Bo', lastName: 'Pryde', statureMm: '181 cm' },
  { memberNumber: 'sample-3', firstName: 'Carn', lastName: 'Tavy' },
]

/**
 * A list of three members to copy (CSV, RFC 4180, UTF-8), as the import reads it. The first two have numbers on the
 * studio's first type, where it has one.
 */
export async function sampleList(db: DbExecutor, scope: Scope): Promise<string> {
  const [type] = await listTypes(db, scope)
  const numbers: MemberCells = type ? { bikeType: type.bikeType.name, ...referenceMarks(type.bikeType) } : {}
  const axes = type ? axesOf(type.bikeType) : []
  const columns = type
    ? [...WHO, 'bikeType' as const, ...AXES.filter((axis) => isCommon(axis) || axes.includes(axis))]
    : WHO
  return stringify(
    PEOPLE.map((person, i) => (i < 2 ? { ...person, ...numbers } : person)),
    {
      header: true,
      record_delimiter: 'windows',
      columns: columns.map((key) => ({ key, header: COLUMN_HEADING[key] })),
    },
  )
}
