import { Type } from '@sinclair/typebox'
import { CARE_DEEDS, CARE_PARTS, careIntervalsSchema } from '../../core/bikes/care/care'
import { saddleModelSchema } from '../../core/bikes/saddles/saddle'
import { INSPECTION_ITEMS } from '../../core/bikes/bike/inspection'
import type { BikeReading } from '../../core/bikes/calibration/bikeReading'
import { detectDrift } from '../../core/bikes/calibration/machineOffset'
import type { TapeReading } from '../../core/bikes/calibration/readings'
import { formatDrift } from '../../core/messages/bikes/machine'
import { documentIssues, parseTypeFile, serializeTypeFile, type BikeTypeDocument } from '../../core/operations/typeFile'
import { parseLabels } from '../../core/bikes/scale/printed'
import { closed, oneOf } from '../../core/base/schema'
import * as readings from '../bikes/bikeReadings'
import { retireBike } from '../classes/retireBike'
import * as bikes from '../bikes/bikes'
import * as calibration from '../bikes/calibrateType'
import * as care from '../bikes/care'
import * as inspections from '../bikes/inspections'
import * as saddles from '../bikes/saddles'
import * as tapes from '../bikes/tapeReadings'
import { validFieldsOf, readingRefusal, tapeRefusal } from '../bikes/validateReading'
import * as versions from '../bikes/versions'
import * as residuals from '../setups/riderResiduals'
import { formatDate, formatTime } from '../../core/messages/words/dates'
import { getStudio } from '../studio/studio'
import {
  checkedInRun,
  defineCommand,
  defineQuery,
  idOrNull,
  idSchema,
  SAVED,
  refused,
  typedText,
  type CommandOutcome,
} from './defineCommand'

const MAX_FILE_LENGTH = 2_000_000
const MAX_READINGS = 200
const MAX_NOTE_LENGTH = 300
const MAX_NUMBER = 999

const bikeOnly = closed({ bikeId: idSchema })
const isNumber = (n: number) => Number.isInteger(n) && n >= 1 && n <= MAX_NUMBER

/** Writes a type, or its next version when `baseId` is the one that was looked at. */
export const saveType = defineCommand({
  name: 'bikes.saveType',
  permission: 'manageBikes',
  ownsId: true,
  schema: closed({ baseId: idOrNull, document: checkedInRun<BikeTypeDocument>() }),
  run: async (tx, scope, { baseId, document }, { id, now }) => {
    const issues = documentIssues(document)
    if (issues.length > 0) return refused({ code: 'typeIssues', issues })
    const base = baseId === null ? null : await versions.findType(tx, scope, baseId)
    const written = await versions.writeVersion(tx, scope, { id, baseId: base?.id ?? null, document }, now)
    switch (written.outcome) {
      case 'kept':
        return { outcome: 'kept', lineId: written.lineId }
      case 'idTaken':
        return refused({ code: 'idTaken' })
      case 'sameName':
        return refused({ code: 'sameTypeName', name: document.bikeType.name })
      case 'versionConflict': {
        const { timeZone } = await getStudio(tx, scope)
        const { createdBy, createdAt } = written
        const [date, time] = [formatDate(createdAt, timeZone), formatTime(createdAt, timeZone)]
        return refused({ code: 'versionConflict', by: createdBy, date, time })
      }
    }
  },
})

/** All types in force as the text of one file. */
export const exportTypes = defineQuery({
  name: 'bikes.exportTypes',
  permission: 'seeBikes',
  schema: closed({}),
  run: async (db, scope) => ({
    outcome: 'found',
    text: serializeTypeFile(await versions.listTypes(db, scope)),
  }),
})

/** Imports a file of types, all or none. */
export const importTypes = defineCommand({
  name: 'bikes.importTypes',
  permission: 'manageBikes',
  schema: closed({ text: Type.String() }),
  run: async (tx, scope, { text }, { now }) => {
    if (text.length > MAX_FILE_LENGTH) return refused({ code: 'fileTooLarge' })
    const read = parseTypeFile(text)
    if (read.outcome === 'refused') return refused({ code: 'fileIssues', issues: read.issues })
    return { outcome: 'kept', imported: await versions.importTypes(tx, scope, read.types, now) }
  },
})

/** Adds machines of a type: "1-4 7" are five of them. */
export const addMachines = defineCommand({
  name: 'bikes.addMachines',
  permission: 'manageBikes',
  schema: closed({ lineId: idSchema, typed: typedText }),
  run: async (tx, scope, { lineId, typed }) => {
    const read = parseLabels(typed)
    if (read.outcome === 'refused')
      return refused(read.reason === 'twice' ? { code: 'numberTwice', label: read.at } : { code: 'noNumbers' })
    const numbers = read.labels.map(Number)
    const odd = numbers.findIndex((n) => !isNumber(n))
    if (odd >= 0) return refused({ code: 'notANumber', label: read.labels[odd] })
    const added = await bikes.addBikes(tx, scope, lineId, numbers)
    if (added.outcome === 'noSuchType') return refused({ code: 'noSuchType' })
    if (added.outcome === 'numbersTaken') return refused({ code: 'numbersTaken', numbers: added.numbers })
    return { outcome: 'kept', count: numbers.length }
  },
})

/** Removes a machine that was added by mistake; one with records stays. */
export const removeMachine = defineCommand({
  name: 'bikes.removeMachine',
  permission: 'manageBikes',
  schema: bikeOnly,
  run: async (tx, scope, { bikeId }) =>
    (await bikes.deleteBike(tx, scope, bikeId)) ? SAVED : refused({ code: 'hasRecords' }),
})

/** Gives a machine another number. */
export const renumberMachine = defineCommand({
  name: 'bikes.renumberMachine',
  permission: 'manageBikes',
  schema: closed({ bikeId: idSchema, number: Type.Number() }),
  run: async (tx, scope, { bikeId, number }) =>
    isNumber(number)
      ? changed(await bikes.renumberBike(tx, scope, bikeId, number))
      : refused({ code: 'notANumber', label: String(number).slice(0, 12) }),
})

/** Retires a machine: its number is free, its records stay. `riders` lost their place in a coming class. */
export const retireMachine = defineCommand({
  name: 'bikes.retireMachine',
  permission: 'manageBikes',
  schema: bikeOnly,
  run: async (tx, scope, { bikeId }, { now }) => {
    const retired = await retireBike(tx, scope, bikeId, now)
    return retired.outcome === 'kept' ? retired : refused({ code: 'noSuchBike' })
  },
})

/** Takes a retired machine back into use. */
export const returnMachine = defineCommand({
  name: 'bikes.returnMachine',
  permission: 'manageBikes',
  schema: bikeOnly,
  run: async (tx, scope, { bikeId }) => changed(await bikes.returnBike(tx, scope, bikeId)),
})

/** Deletes a type that nothing uses. */
export const deleteType = defineCommand({
  name: 'bikes.deleteType',
  permission: 'manageBikes',
  schema: closed({ lineId: idSchema }),
  run: async (tx, scope, { lineId }) => {
    const { outcome } = await versions.deleteType(tx, scope, lineId)
    return outcome === 'kept' ? SAVED : refused({ code: outcome === 'inUse' ? 'typeInUse' : 'noSuchType' })
  },
})

/** Records the tape's lengths at one setting of a type, for its calibration. */
export const addTapeReading = defineCommand({
  name: 'bikes.addTapeReading',
  permission: 'manageBikes',
  ownsId: true,
  schema: closed({ typeId: idSchema, row: checkedInRun<TapeReading>() }),
  run: async (tx, scope, { typeId, row }, { id, now }) => {
    const type = await versions.findType(tx, scope, typeId)
    if (!type) return refused({ code: 'noSuchType' })
    const refusal = tapeRefusal(type.bikeType, row)
    if (refusal) return refused(refusal)
    return written(await tapes.addTapeReading(tx, scope, { id, typeId, row }, now))
  },
})

/** Replaces readings that were all read wrongly alike by corrected ones, all or none. */
export const replaceTapeReadings = defineCommand({
  name: 'bikes.replaceTapeReadings',
  permission: 'manageBikes',
  schema: closed({
    typeId: idSchema,
    replaced: Type.Array(Type.Object({ id: idSchema, newId: idSchema, row: checkedInRun<TapeReading>() }), {
      minItems: 1,
      maxItems: MAX_READINGS,
    }),
  }),
  run: async (tx, scope, { typeId, replaced }, { now }) => {
    const type = await versions.findType(tx, scope, typeId)
    if (!type) return refused({ code: 'noSuchType' })
    const refusal = replaced.map(({ row }) => tapeRefusal(type.bikeType, row)).find((found) => found !== null)
    if (refusal) return refused(refusal)
    const rows = replaced.map(({ id, newId, row: { marks, lengths } }) => ({ id, newId, row: { marks, lengths } }))
    const { outcome } = await tapes.replaceTapeReadings(tx, scope, { typeId, replaced: rows }, now)
    return outcome === 'kept' ? SAVED : refused({ code: outcome === 'gone' ? 'readingsGone' : 'idTaken' })
  },
})

/** Withdraws a reading of a type. */
export const withdrawTapeReading = defineCommand({
  name: 'bikes.withdrawTapeReading',
  permission: 'manageBikes',
  schema: closed({ readingId: idSchema }),
  run: async (tx, scope, { readingId }, { now }) => {
    await tapes.withdrawTapeReading(tx, scope, readingId, now)
    return SAVED
  },
})

/** Applies the calibration that the tape gives to all machines of the type. */
export const finishCalibration = defineCommand({
  name: 'bikes.finishCalibration',
  permission: 'manageBikes',
  ownsId: true,
  inTransaction: false,
  schema: closed({ typeId: idSchema }),
  run: async (db, scope, { typeId }, { id, now }) => {
    const result = await calibration.calibrateType(db, scope, { id, typeId }, now)
    switch (result.outcome) {
      case 'kept':
        return result
      case 'notFitted':
        return refused({ code: 'notFitted', say: result.say })
      default:
        return refused({ code: result.outcome === 'noSuchType' ? 'noSuchType' : 'typeChanged' })
    }
  },
})

/** How a tape of one machine differs from its calibration, a sentence each; empty where it agrees. */
export const compareTapeReading = defineQuery({
  name: 'bikes.compareTapeReading',
  permission: 'inspectBikes',
  schema: closed({ bikeId: idSchema, row: checkedInRun<TapeReading>(), shown: oneOf(['metric', 'imperial']) }),
  run: async (db, scope, { bikeId, row, shown }) => {
    const bike = await bikes.findBike(db, scope, bikeId)
    if (!bike) return refused({ code: 'noSuchBike' })
    const refusal = tapeRefusal(bike.type, row)
    if (refusal) return refused(refusal)
    const before = (await readings.listBikeReadings(db, scope, bikeId)).some((r) => r.row.kind === 'tape')
    const drift = before ? detectDrift(bike.type, bike.machineCalibration, row) : []
    return { outcome: 'found', says: drift.map((d) => formatDrift(d, shown)) }
  },
})

/** Records a measurement of one machine and applies it. A tape may show that the bike has changed. */
export const addBikeReading = defineCommand({
  name: 'bikes.addBikeReading',
  permission: 'inspectBikes',
  ownsId: true,
  schema: closed({ bikeId: idSchema, reading: checkedInRun<BikeReading>() }),
  run: async (tx, scope, { bikeId, reading }, { id, now }) => {
    const row = validFieldsOf(reading ?? {})
    if (!row) return refused({ code: 'unknownReading' })
    const bike = await bikes.findBike(tx, scope, bikeId)
    if (!bike) return refused({ code: 'noSuchBike' })
    const refusal = readingRefusal(bike.type, row)
    if (refusal) return refused(refusal)
    return written(await readings.addBikeReading(tx, scope, { id, bikeId, row }, now))
  },
})

/** Applies the offset that the riders checked on a machine show, until a tape is laid. */
export const takeRiderResidual = defineCommand({
  name: 'bikes.takeRiderResidual',
  permission: 'manageBikes',
  ownsId: true,
  inTransaction: false,
  schema: bikeOnly,
  run: async (db, scope, { bikeId }, { id, now }) => {
    const taken = await residuals.takeRiderResidual(db, scope, { id, bikeId }, now)
    return taken.outcome === 'notNamed' ? refused({ code: 'notNamed' }) : written(taken)
  },
})

/** Withdraws a reading of one machine. */
export const withdrawBikeReading = defineCommand({
  name: 'bikes.withdrawBikeReading',
  permission: 'inspectBikes',
  schema: closed({ bikeId: idSchema, readingId: idSchema }),
  run: async (tx, scope, { bikeId, readingId }, { now }) => {
    await readings.withdrawBikeReading(tx, scope, { id: readingId, bikeId }, now)
    return SAVED
  },
})

/** Records one inspection of a machine: every item is good, or has a note of its fault. */
export const recordInspection = defineCommand({
  name: 'bikes.recordInspection',
  permission: 'inspectBikes',
  ownsId: true,
  schema: closed({
    bikeId: idSchema,
    wrong: Type.Array(closed({ id: idSchema, item: oneOf(INSPECTION_ITEMS), note: typedText }), { maxItems: 400 }),
  }),
  run: async (tx, scope, { bikeId, wrong }, { id, now }) => {
    const isDistinct = (key: 'id' | 'item') => new Set(wrong.map((w) => w[key])).size === wrong.length
    if (!isDistinct('item') || !isDistinct('id')) return refused({ code: 'itemTwice' })
    const faults = wrong.map((w) => ({ id: w.id, item: w.item, note: w.note.trim().slice(0, MAX_NOTE_LENGTH) }))
    const good = INSPECTION_ITEMS.filter((item) => !faults.some((f) => f.item === item))
    const { outcome } = await inspections.recordInspection(tx, scope, { id, bikeId, good, faults }, now)
    return outcome === 'kept' ? SAVED : refused({ code: outcome === 'gone' ? 'noSuchBike' : 'inspectionTaken' })
  },
})

/** Marks a fault as repaired: the bike is offered again. */
export const resolveFault = defineCommand({
  name: 'bikes.resolveFault',
  permission: 'inspectBikes',
  schema: closed({ bikeId: idSchema, faultId: idSchema }),
  run: async (tx, scope, { bikeId, faultId }, { now }) => {
    await inspections.resolveFault(tx, scope, { id: faultId, bikeId }, now)
    return SAVED
  },
})

/** Writes a model of saddle, or changes it. */
export const saveSaddle = defineCommand({
  name: 'bikes.saveSaddle',
  permission: 'manageBikes',
  schema: closed({ saddleId: idSchema, model: saddleModelSchema }),
  run: async (tx, scope, { saddleId, model }, { now }) => {
    const { outcome } = await saddles.saveSaddle(tx, scope, { id: saddleId, model }, now)
    if (outcome === 'kept') return SAVED
    return refused(outcome === 'sameName' ? { code: 'sameSaddleName', name: model.name } : { code: 'noSuchSaddle' })
  },
})

/** Puts a saddle on a machine; null: its type's own again. */
export const fitSaddle = defineCommand({
  name: 'bikes.fitSaddle',
  permission: 'inspectBikes',
  ownsId: true,
  schema: closed({ bikeId: idSchema, saddleId: idOrNull }),
  run: async (tx, scope, { bikeId, saddleId }, { id, now }) => {
    const fitted = await saddles.fitSaddle(tx, scope, { id, bikeId, saddleId }, now)
    if (fitted.outcome === 'kept') return SAVED
    if (fitted.outcome === 'taken') return refused({ code: 'saddleTaken', numbers: fitted.numbers })
    return refused({ code: fitted.outcome === 'gone' ? 'noSuchSaddle' : 'idTaken' })
  },
})

/** Records that a part of a machine was seen to or replaced. */
export const recordCare = defineCommand({
  name: 'bikes.recordCare',
  permission: 'inspectBikes',
  ownsId: true,
  schema: closed({ bikeId: idSchema, part: oneOf(CARE_PARTS), deed: oneOf(CARE_DEEDS), note: typedText }),
  run: async (tx, scope, { bikeId, part, deed, note }, { id, now }) => {
    const row = { part, deed, note: note.trim().slice(0, MAX_NOTE_LENGTH) }
    return written(await care.recordCare(tx, scope, { id, bikeId, ...row }, now))
  },
})

/** Takes back what was recorded of a part. */
export const withdrawCare = defineCommand({
  name: 'bikes.withdrawCare',
  permission: 'inspectBikes',
  schema: closed({ bikeId: idSchema, careId: idSchema }),
  run: async (tx, scope, { bikeId, careId }, { now }) => {
    await care.withdrawCare(tx, scope, { id: careId, bikeId }, now)
    return SAVED
  },
})

/** Sets how often parts are seen to: of one machine, or of all where `bikeId` is null. */
export const setCareIntervals = defineCommand({
  name: 'bikes.setCareIntervals',
  permission: 'manageBikes',
  schema: closed({ bikeId: idOrNull, intervals: careIntervalsSchema }),
  run: async (tx, scope, input) =>
    (await care.setCareIntervals(tx, scope, input)) ? SAVED : refused({ code: 'noSuchBike' }),
})

function changed({ outcome }: bikes.BikeChangeResult): CommandOutcome {
  if (outcome === 'kept') return SAVED
  return refused({ code: outcome === 'numberTaken' ? 'bikeNumberTaken' : 'noSuchBike' })
}

function written({ outcome }: readings.BikeWriteResult): CommandOutcome {
  if (outcome === 'kept') return SAVED
  return refused({ code: outcome === 'gone' ? 'noSuchBike' : 'idTaken' })
}
