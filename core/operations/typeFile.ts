import type { BikeType } from '../bike/bike'
import { axesOf } from '../bike/bike'
import { placeAt } from '../bike/place'
import { TYPE_FILE_FORMAT, type TypeSheet } from '../bike/sheet'
import { stopsOf } from '../scale/scale'
import { bikeTypeFaults } from './bikeFaults'
import { faultsOf, type Fault } from './faults'
import { sizeFaults } from './sizeFaults'
import * as generated from './validators.generated.cjs'

/** A type with everything that is handed on: geometry, scales and sheet. */
export type WholeType = Readonly<{ bikeType: BikeType; sheet: TypeSheet }>
export type TypeFile = Readonly<{ format: typeof TYPE_FILE_FORMAT; formatVersion: 1; types: readonly WholeType[] }>
export type ReadTypeFile =
  | Readonly<{ outcome: 'read'; types: readonly WholeType[] }>
  | Readonly<{ outcome: 'refused'; faults: readonly Fault[] }>

/** The file of these types, as JSON text; ends with a line feed. */
export function typeFileOf(types: readonly WholeType[]): string {
  const file: TypeFile = {
    format: TYPE_FILE_FORMAT,
    formatVersion: 1,
    types: types.map(({ bikeType, sheet }) => ({ bikeType, sheet })),
  }
  return `${JSON.stringify(file, null, 2)}\n`
}

/** Reads a file of types: all of them, or every fault with its place and reason and none. */
export function readTypeFile(text: string): ReadTypeFile {
  let file: unknown
  try {
    file = JSON.parse(text)
  } catch (error) {
    return { outcome: 'refused', faults: [{ pointer: '', reason: `this is not JSON: ${(error as Error).message}` }] }
  }
  const tooLarge = sizeFaults('typeFile', file)
  if (tooLarge.length > 0) return { outcome: 'refused', faults: tooLarge }
  if (!generated.typeFile(file)) return { outcome: 'refused', faults: faultsOf(generated.typeFile.errors ?? []) }
  const { types } = file as TypeFile
  const faults = types.flatMap(({ bikeType }, i) => typeFaults(bikeType, `/types/${i}/bikeType`))
  const names = types.map(({ bikeType }) => bikeType.name.trim())
  const twice = names.flatMap((name, i) =>
    names.indexOf(name) < i
      ? [{ pointer: `/types/${i}/bikeType/name`, reason: `${name} stands twice in this file` }]
      : [],
  )
  return faults.length + twice.length > 0
    ? { outcome: 'refused', faults: [...faults, ...twice] }
    : { outcome: 'read', types }
}

/** What is wrong with a type beyond its schema: scales that contradict themselves, a saddle or bars below the crank axle. */
export function typeFaults(bikeType: BikeType, at: string): Fault[] {
  const scales = bikeTypeFaults(bikeType, at)
  if (scales.length > 0) return scales
  const lowest = Object.fromEntries(axesOf(bikeType).map((name) => [name, lowestMm(bikeType, name)]))
  const { seat, grip } = placeAt(bikeType, undefined, lowest)
  return [
    ...(seat.yMm <= 0
      ? [{ pointer: `${at}/seatOrigin/yMm`, reason: 'puts the saddle below the crank axle at its lowest mark' }]
      : []),
    ...(grip.yMm <= 0
      ? [{ pointer: `${at}/gripOrigin/yMm`, reason: 'puts the bars below the crank axle at their lowest mark' }]
      : []),
  ]
}

/** Position of the mark of an axis at which the part stands lowest, mm. */
function lowestMm(bikeType: BikeType, name: 'seatHeight' | 'seatSlide' | 'barHeight' | 'barSlide'): number {
  const axis = bikeType.axes[name]!
  const upward = Math.sin((axis.directionDeg * Math.PI) / 180) >= 0
  const all = stopsOf(axis.scale).map((stop) => stop.mm)
  return upward ? Math.min(...all) : Math.max(...all)
}

/** Faults of one type alone, for the editor's door: its schema, then what the schema cannot say. */
export function wholeTypeFaults(type: unknown): Fault[] {
  const file = { format: TYPE_FILE_FORMAT, formatVersion: 1, types: [type] }
  const read = readTypeFile(JSON.stringify(file))
  return read.outcome === 'read'
    ? []
    : read.faults.map(({ pointer, reason }) => ({ pointer: pointer.replace(/^\/types\/0/, ''), reason }))
}
