import type { AxisName } from '../base/adjustments'
import type { BikeType } from '../bikes/bike/bike'
import { axesOf } from '../bikes/bike/bike'
import type { TypeCalibration } from '../bikes/calibration/calibrate'
import { contactPoints } from '../bikes/bike/contactPoints'
import { TYPE_FILE_FORMAT, type BikeEquipment } from '../bikes/bike/equipment'
import { positionsOf } from '../bikes/scale/scale'
import { bikeTypeIssues } from './requests/bikeIssues'
import { issuesFromAjv, REASON, type Issue } from '../messages/words/issues'
import { sizeIssues } from './sizeIssues'
import type { TypeFile } from './typeFileSchema'
import * as generated from './validators.generated.cjs'

/** A type with everything that is handed on: geometry with its scales, equipment, and what a tape found of it. */
export type BikeTypeDocument = Readonly<{
  bikeType: BikeType
  equipment: BikeEquipment
  calibration?: TypeCalibration | null
}>

export type ParsedTypeFile =
  | Readonly<{ outcome: 'read'; types: readonly BikeTypeDocument[] }>
  | Readonly<{ outcome: 'refused'; issues: readonly Issue[] }>

/** The file of these types, as JSON text; ends with a line feed. */
export function serializeTypeFile(types: readonly BikeTypeDocument[]): string {
  return `${JSON.stringify(typeFileOf(types), null, 2)}\n`
}

const typeFileOf = (types: readonly BikeTypeDocument[]): TypeFile => ({
  format: TYPE_FILE_FORMAT,
  formatVersion: 1,
  types: types.map(({ bikeType, equipment, calibration }) => ({
    bikeType,
    sheet: equipment,
    ...(calibration && { calibration }),
  })),
})

/** Reads a file of types: all of them, or every issue with its place and reason and none. */
export function parseTypeFile(text: string): ParsedTypeFile {
  try {
    return checkTypeFile(JSON.parse(text))
  } catch (error) {
    return { outcome: 'refused', issues: [{ pointer: '', reason: REASON.notJson((error as Error).message) }] }
  }
}

function checkTypeFile(file: unknown): ParsedTypeFile {
  const tooLarge = sizeIssues('typeFile', file)
  if (tooLarge.length > 0) return { outcome: 'refused', issues: tooLarge }
  if (!generated.typeFile(file)) return { outcome: 'refused', issues: issuesFromAjv(generated.typeFile.errors ?? []) }
  const { types } = file as TypeFile
  const issues = types.flatMap(({ bikeType }, i) => typeIssues(bikeType, `/types/${i}/bikeType`))
  const names = types.map(({ bikeType }) => bikeType.name.trim())
  const repeated = names.flatMap((name, i) =>
    names.indexOf(name) < i ? [{ pointer: `/types/${i}/bikeType/name`, reason: REASON.nameTwice(name) }] : [],
  )
  return issues.length + repeated.length > 0
    ? { outcome: 'refused', issues: [...issues, ...repeated] }
    : {
        outcome: 'read',
        types: types.map(({ bikeType, sheet, calibration }) => ({
          bikeType,
          equipment: sheet,
          ...(calibration && { calibration }),
        })),
      }
}

/**
 * What is wrong with a type beyond its schema: scales that contradict themselves, a saddle or bars below the crank
 * axle.
 */
export function typeIssues(bikeType: BikeType, at: string): Issue[] {
  const scales = bikeTypeIssues(bikeType, at)
  if (scales.length > 0) return scales
  const lowest = Object.fromEntries(axesOf(bikeType).map((name) => [name, lowestPositionMm(bikeType, name)]))
  const { seat, grip } = contactPoints(bikeType, undefined, lowest)
  return [
    ...(seat.yMm <= 0 ? [{ pointer: `${at}/seatOrigin/yMm`, reason: REASON.saddleBelowAxle() }] : []),
    ...(grip.yMm <= 0 ? [{ pointer: `${at}/gripOrigin/yMm`, reason: REASON.barsBelowAxle() }] : []),
  ]
}

/** Position of the mark of an axis at which the part is lowest, mm. */
function lowestPositionMm(bikeType: BikeType, name: AxisName): number {
  const axis = bikeType.axes[name]!
  const upward = Math.sin((axis.directionDeg * Math.PI) / 180) >= 0
  const all = positionsOf(axis.scale).map((position) => position.mm)
  return upward ? Math.min(...all) : Math.max(...all)
}

/** Issues of one type alone, for the editor: its schema, then the rules beyond the schema. */
export function documentIssues(document: BikeTypeDocument): Issue[] {
  const read = checkTypeFile(JSON.parse(JSON.stringify(typeFileOf([document ?? {}]))))
  return read.outcome === 'read'
    ? []
    : read.issues.map(({ pointer, reason }) => ({ pointer: pointer.replace(/^\/types\/0/, ''), reason }))
}
