'use server'
import { INSPECTION_ITEMS, type InspectionItem } from '@/core/bike/inspection'
import type { BikeReading } from '@/core/calibration/bikeReading'
import { detectDrift } from '@/core/calibration/machineOffset'
import type { TapeReading } from '@/core/calibration/readings'
import {
  FILE_TOO_LARGE,
  formatActionRefusal,
  formatFileIssues,
  formatImport,
  type ActionRefusal,
} from '@/core/messages/actions'
import { formatDrift } from '@/core/messages/machine'
import { documentIssues, parseTypeFile, serializeTypeFile, type BikeTypeDocument } from '@/core/operations/typeFile'
import { parseLabels } from '@/core/scale/printed'
import type { UnitSystem } from '@/core/units/length'
import { authorize } from '@/server/accounts/session'
import * as readings from '@/server/bikes/bikeReadings'
import * as bikes from '@/server/bikes/bikes'
import { calibrateType } from '@/server/bikes/calibrateType'
import * as inspections from '@/server/bikes/inspections'
import * as tapes from '@/server/bikes/tapeReadings'
import { knownFieldsOf, readingRefusal, tapeRefusal } from '@/server/bikes/validateReading'
import * as versions from '@/server/bikes/versions'
import { database } from '@/server/db/connection'
import { isId, textOf } from '@/server/ids'
import * as residuals from '@/server/setups/riderResiduals'
import { formatDate, formatTime } from '@/server/studio/day'
import { getStudio } from '@/server/studio/studio'
import type { ActionResult } from '../shared/actionResult'

const refused = (refusal: ActionRefusal) => ({ outcome: 'refused', say: formatActionRefusal(refusal) }) as const
const NOT_ALLOWED: ActionRefusal = { code: 'notAllowed' }
const MAX_FILE_LENGTH = 2_000_000
const MAX_READINGS = 200

/** Writes a type, or its next version when `baseId` is the one that was looked at. */
export async function saveType(
  id: string,
  baseId: string | null,
  document: BikeTypeDocument,
): Promise<ActionResult<{ lineId: string }>> {
  const person = await authorize('manageBikes')
  if (!person) return refused(NOT_ALLOWED)
  if (!isId(id) || (baseId !== null && !isId(baseId))) return refused({ code: 'malformed' })
  const issues = documentIssues(document)
  if (issues.length > 0) return refused({ code: 'typeIssues', issues })
  const db = database()
  const base = baseId === null ? null : await versions.findType(db, person, baseId)
  const written = await versions.writeVersion(db, person, { id, baseId: base?.id ?? null, document }, new Date())
  switch (written.outcome) {
    case 'kept':
      return { outcome: 'kept', lineId: written.lineId }
    case 'idTaken':
      return refused({ code: 'idTaken' })
    case 'sameName':
      return refused({ code: 'sameTypeName', name: document.bikeType.name })
    case 'versionConflict': {
      const { timeZone } = await getStudio(db, person)
      const { createdBy, createdAt } = written
      const [date, time] = [formatDate(createdAt, timeZone), formatTime(createdAt, timeZone)]
      return refused({ code: 'versionConflict', by: createdBy, date, time })
    }
  }
}

/** All types in force as one file; empty for who may not see bikes. */
export async function exportTypes(): Promise<string> {
  const person = await authorize('seeBikes')
  return person ? serializeTypeFile(await versions.listTypes(database(), person)) : ''
}

/** Brings in a file of types, all or none; refused, with a line for each thing that is wrong. */
export async function importTypeFile(
  text: string,
): Promise<ActionResult<{ say: string }, { lines: readonly string[] }>> {
  const person = await authorize('manageBikes')
  const because = (lines: readonly string[]) => ({ outcome: 'refused', say: lines[0], lines }) as const
  if (!person) return because([formatActionRefusal(NOT_ALLOWED)])
  const sent = textOf(text)
  if (sent.length > MAX_FILE_LENGTH) return because([FILE_TOO_LARGE])
  const read = parseTypeFile(sent)
  if (read.outcome === 'refused') return because(formatFileIssues(read.issues))
  const result = await versions.importTypes(database(), person, read.types, new Date())
  return { outcome: 'kept', say: formatImport(result) }
}

/** Adds machines of a type: "1-4 7" are five of them. */
export async function addMachines(lineId: string, typed: string): Promise<ActionResult<{ count: number }>> {
  const person = await authorize('manageBikes')
  if (!person) return refused(NOT_ALLOWED)
  const read = parseLabels(textOf(typed))
  if (read.outcome === 'refused')
    return refused(read.reason === 'twice' ? { code: 'numberTwice', label: read.at } : { code: 'noNumbers' })
  const numbers = read.labels.map(Number)
  const odd = numbers.findIndex((n) => !Number.isInteger(n) || n < 1 || n > 999)
  if (odd >= 0) return refused({ code: 'notANumber', label: read.labels[odd] })
  const added = await bikes.addBikes(database(), person, lineId, numbers)
  if (added.outcome === 'noSuchType') return refused({ code: 'noSuchType' })
  if (added.outcome === 'numbersTaken') return refused({ code: 'numbersTaken', numbers: added.numbers })
  return { outcome: 'kept', count: numbers.length }
}

/** Takes a machine out again that was added by mistake; one that anything was recorded on stays. */
export async function removeMachine(bikeId: string): Promise<ActionResult> {
  const person = await authorize('manageBikes')
  if (!person) return refused(NOT_ALLOWED)
  if (!isId(bikeId)) return refused({ code: 'malformed' })
  const removed = await bikes.deleteBike(database(), person, bikeId)
  return removed ? { outcome: 'kept' } : refused({ code: 'hasRecords' })
}

/** Gives a machine another number. */
export async function renumberMachine(bikeId: string, number: number): Promise<ActionResult> {
  const person = await authorize('manageBikes')
  if (!person) return refused(NOT_ALLOWED)
  if (!isId(bikeId)) return refused({ code: 'malformed' })
  if (!Number.isInteger(number) || number < 1 || number > 999)
    return refused({ code: 'notANumber', label: String(number).slice(0, 12) })
  return bikeChange(await bikes.renumberBike(database(), person, bikeId, number))
}

/** Retires a machine: its number is free, its records stay. Told: riders who lost their place in a coming class. */
export async function retireMachine(bikeId: string): Promise<ActionResult<{ riders: number }>> {
  const person = await authorize('manageBikes')
  if (!person) return refused(NOT_ALLOWED)
  if (!isId(bikeId)) return refused({ code: 'malformed' })
  const retired = await bikes.retireBike(database(), person, bikeId, new Date())
  return retired.outcome === 'kept' ? retired : refused({ code: 'noSuchBike' })
}

/** Takes a retired machine back into use. */
export async function returnMachine(bikeId: string): Promise<ActionResult> {
  const person = await authorize('manageBikes')
  if (!person) return refused(NOT_ALLOWED)
  if (!isId(bikeId)) return refused({ code: 'malformed' })
  return bikeChange(await bikes.returnBike(database(), person, bikeId))
}

/** Deletes a type that nothing uses. */
export async function deleteType(lineId: string): Promise<ActionResult> {
  const person = await authorize('manageBikes')
  if (!person) return refused(NOT_ALLOWED)
  if (!isId(lineId)) return refused({ code: 'malformed' })
  const { outcome } = await versions.deleteType(database(), person, lineId)
  if (outcome === 'kept') return { outcome }
  return refused({ code: outcome === 'inUse' ? 'typeInUse' : 'noSuchType' })
}

function bikeChange({ outcome }: bikes.BikeChangeResult): ActionResult {
  if (outcome === 'kept') return { outcome }
  return refused({ code: outcome === 'numberTaken' ? 'bikeNumberTaken' : 'noSuchBike' })
}

/** Keeps one setting's tape toward a type's calibration. */
export async function addTapeReading(id: string, typeId: string, row: TapeReading): Promise<ActionResult> {
  const person = await authorize('manageBikes')
  if (!person) return refused(NOT_ALLOWED)
  const db = database()
  const type = isId(id) && isId(typeId) ? await versions.findType(db, person, typeId) : null
  if (!type) return refused({ code: 'noSuchType' })
  const refusal = tapeRefusal(type.bikeType, row)
  if (refusal) return refused(refusal)
  return bikeWrite(await tapes.addTapeReading(db, person, { id, typeId, row }, new Date()))
}

/** Puts corrected readings in the place of all that were read wrongly alike, all or none. */
export async function replaceTapeReadings(
  typeId: string,
  replaced: readonly tapes.ReplacedReading[],
): Promise<ActionResult> {
  const person = await authorize('manageBikes')
  if (!person) return refused(NOT_ALLOWED)
  const db = database()
  const type = isId(typeId) ? await versions.findType(db, person, typeId) : null
  if (!type) return refused({ code: 'noSuchType' })
  const sized = Array.isArray(replaced) && replaced.length > 0 && replaced.length <= MAX_READINGS
  if (!sized || !replaced.every((r) => r !== null && typeof r === 'object' && isId(r.id) && isId(r.newId)))
    return refused({ code: 'malformed' })
  const refusal = replaced.map(({ row }) => tapeRefusal(type.bikeType, row)).find((found) => found !== null)
  if (refusal) return refused(refusal)
  const known = replaced.map(({ id, newId, row: { marks, lengths } }) => ({ id, newId, row: { marks, lengths } }))
  const { outcome } = await tapes.replaceTapeReadings(db, person, { typeId, replaced: known }, new Date())
  if (outcome === 'kept') return { outcome }
  return refused({ code: outcome === 'gone' ? 'readingsGone' : 'idTaken' })
}

export async function withdrawTapeReading(id: string): Promise<ActionResult> {
  const person = await authorize('manageBikes')
  if (!person) return refused(NOT_ALLOWED)
  if (isId(id)) await tapes.withdrawTapeReading(database(), person, id, new Date())
  return { outcome: 'kept' }
}

/** Puts what the tape found in force on all machines of the type. */
export async function finishCalibration(id: string, typeId: string): Promise<ActionResult<{ lineId: string }>> {
  const person = await authorize('manageBikes')
  if (!person) return refused(NOT_ALLOWED)
  if (!isId(id) || !isId(typeId)) return refused({ code: 'noSuchType' })
  const result = await calibrateType(database(), person, { id, typeId }, new Date())
  switch (result.outcome) {
    case 'kept':
      return result
    case 'notFitted':
      return refused({ code: 'notFitted', say: result.say })
    default:
      return refused({ code: result.outcome === 'noSuchType' ? 'noSuchType' : 'typeChanged' })
  }
}

/** What a machine's tape says against what is known: agreement, or what disagrees and why. Nothing is kept. */
export async function compareTapeReading(
  bikeId: string,
  row: TapeReading,
  shown: UnitSystem,
): Promise<ActionResult<{ says: readonly string[] }>> {
  const person = await authorize('inspectBikes')
  if (!person) return refused(NOT_ALLOWED)
  const db = database()
  const bike = isId(bikeId) ? await bikes.findBike(db, person, bikeId) : null
  if (!bike) return refused({ code: 'noSuchBike' })
  const refusal = tapeRefusal(bike.type, row)
  if (refusal) return refused(refusal)
  const before = (await readings.listBikeReadings(db, person, bikeId)).some((r) => r.row.kind === 'tape')
  const drift = before ? detectDrift(bike.type, bike.machineCalibration, row) : []
  return { outcome: 'kept', says: drift.map((d) => formatDrift(d, shown === 'imperial' ? 'imperial' : 'metric')) }
}

/** Keeps what was measured on one machine and puts it in force. A tape may say that the bike has changed. */
export async function addBikeReading(id: string, bikeId: string, sent: BikeReading): Promise<ActionResult> {
  const person = await authorize('inspectBikes')
  if (!person) return refused(NOT_ALLOWED)
  const row = knownFieldsOf(sent ?? {})
  if (!row) return refused({ code: 'unknownReading' })
  const db = database()
  const bike = isId(id) && isId(bikeId) ? await bikes.findBike(db, person, bikeId) : null
  if (!bike) return refused({ code: 'noSuchBike' })
  const refusal = readingRefusal(bike.type, row)
  if (refusal) return refused(refusal)
  return bikeWrite(await readings.addBikeReading(db, person, { id, bikeId, row }, new Date()))
}

/** Takes what the riders checked on a machine say of its seat, until a tape is laid; only what they say now. */
export async function takeRiderResidual(id: string, bikeId: string): Promise<ActionResult> {
  const person = await authorize('manageBikes')
  if (!person) return refused(NOT_ALLOWED)
  if (!isId(id) || !isId(bikeId)) return refused({ code: 'malformed' })
  const taken = await residuals.takeRiderResidual(database(), person, { id, bikeId }, new Date())
  return taken.outcome === 'notNamed' ? refused({ code: 'notNamed' }) : bikeWrite(taken)
}

export async function withdrawBikeReading(bikeId: string, id: string): Promise<ActionResult> {
  const person = await authorize('inspectBikes')
  if (!person) return refused(NOT_ALLOWED)
  if (!isId(bikeId) || !isId(id)) return refused({ code: 'malformed' })
  await readings.withdrawBikeReading(database(), person, { id, bikeId }, new Date())
  return { outcome: 'kept' }
}

/** Keeps one look over a machine: every item good, or with a note what is wrong. */
export async function recordInspection(
  id: string,
  bikeId: string,
  wrong: readonly Readonly<{ id: string; item: InspectionItem; note: string }>[],
): Promise<ActionResult> {
  const person = await authorize('inspectBikes')
  if (!person) return refused(NOT_ALLOWED)
  if (!isId(id) || !isId(bikeId)) return refused({ code: 'noSuchBike' })
  const isFault = (w: (typeof wrong)[number]) =>
    isId(w?.id) && INSPECTION_ITEMS.includes(w.item) && typeof w.note === 'string'
  if (!Array.isArray(wrong) || !wrong.every(isFault)) return refused({ code: 'malformed' })
  const distinct = (key: 'id' | 'item') => new Set(wrong.map((w) => w[key])).size === wrong.length
  if (!distinct('item') || !distinct('id')) return refused({ code: 'itemTwice' })
  const faults = wrong.map((w) => ({ id: w.id, item: w.item, note: w.note.trim().slice(0, 300) }))
  const good = INSPECTION_ITEMS.filter((item) => !faults.some((f) => f.item === item))
  const { outcome } = await inspections.recordInspection(database(), person, { id, bikeId, good, faults }, new Date())
  if (outcome === 'kept') return { outcome }
  return refused({ code: outcome === 'gone' ? 'noSuchBike' : 'inspectionTaken' })
}

/** A fault is mended: the bike is offered again. */
export async function resolveFault(bikeId: string, id: string): Promise<ActionResult> {
  const person = await authorize('inspectBikes')
  if (!person) return refused(NOT_ALLOWED)
  if (!isId(bikeId) || !isId(id)) return refused({ code: 'malformed' })
  await inspections.resolveFault(database(), person, { id, bikeId }, new Date())
  return { outcome: 'kept' }
}

function bikeWrite({ outcome }: readings.BikeWriteResult): ActionResult {
  if (outcome === 'kept') return { outcome }
  return refused({ code: outcome === 'gone' ? 'noSuchBike' : 'idTaken' })
}
