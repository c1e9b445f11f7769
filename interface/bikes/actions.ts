'use server'
import { readLabels } from '@/core/scale/printed'
import { machineFrom } from '@/core/calibration/machine'
import { disagreements } from '@/core/calibration/offset'
import type { BikeReading } from '@/core/calibration/bikeReading'
import { INSPECTION_ITEMS, type InspectionItem } from '@/core/bike/inspection'
import { sameGeometry } from '@/core/calibration/expectedError'
import type { TapeReading } from '@/core/calibration/readings'
import { isFault, requestFaults, type CalibrateAnswer } from '@/core/operations/operations'
import { readTypeFile, typeFileOf, wholeTypeFaults, type WholeType } from '@/core/operations/typeFile'
import type { LengthShown } from '@/core/units/length'
import { disagreementSaid } from '@/core/words/machine'
import { requireUser } from '@/server/accounts/session'
import { addBikes, bikeById, removeBike } from '@/server/bikes/bikes'
import { recomputeMachine } from '@/server/bikes/machineCalibration'
import {
  addBikeReading,
  clearFault,
  lockMachine,
  readingsOf,
  recordInspection,
  withdrawBikeReading,
} from '@/server/bikes/machines'
import {
  addTypeReading,
  importTypes,
  replaceTypeReadings,
  typeById,
  typeReadings,
  typesOf,
  withdrawTypeReading,
  writeVersion,
  type ReplacedReading,
} from '@/server/bikes/types'
import { compute } from '@/server/compute/pool'
import { database, withTransaction } from '@/server/db/connection'
import { dateSaid, timeSaid } from '@/server/studio/day'
import { getStudio } from '@/server/studio/studio'
import { placeSaid } from './typeDraft'
import { isId } from '@/server/ids'

export type Kept<T> = Readonly<{ outcome: 'kept' } & T>
export type Refused = Readonly<{ outcome: 'refused'; say: string }>
export type Answered<T = unknown> = Kept<T> | Refused

const refused = (say: string) => ({ outcome: 'refused', say }) as const
const LONGEST_FILE = 2_000_000
const ID_TAKEN = 'an earlier try was kept with something else in it; open the page again and look what stands there'

/** Writes a type, or its next version when `baseId` is the one that was looked at. */
export async function saveType(
  id: string,
  baseId: string | null,
  whole: WholeType,
): Promise<Answered<{ lineId: string }>> {
  const person = await requireUser()
  if (!isId(id) || (baseId !== null && !isId(baseId))) return refused('the request was cut short')
  const faults = wholeTypeFaults(whole)
  if (faults.length > 0) return refused(faults.map((f) => `${placeSaid(f.pointer)}: ${f.reason}`).join('; '))
  const db = database()
  const studio = await getStudio(db)
  const base = baseId === null ? null : await typeById(db, baseId)
  const written = await writeVersion(db, {
    id,
    studioId: studio.id,
    baseId: base?.id ?? null,
    whole,
    calibration: base && sameGeometry(base.bikeType, whole.bikeType) ? base.calibration : null,
    at: new Date(),
    by: person.id,
  })
  if (written.outcome === 'kept') return { outcome: 'kept', lineId: written.lineId }
  if (written.outcome === 'idTaken') return refused(ID_TAKEN)
  if (written.outcome === 'sameName')
    return refused(`there is a type called ${whole.bikeType.name} already; give this one another name`)
  return refused(
    `${written.by ?? 'somebody'} changed this type on ${dateSaid(written.at, studio.timeZone)} at ${timeSaid(written.at, studio.timeZone)}, while you were at it. Open it anew and put your changes in; what you typed is still here`,
  )
}

/** All types in force as one file. */
export async function exportTypes(): Promise<string> {
  await requireUser()
  const db = database()
  return typeFileOf(await typesOf(db, (await getStudio(db)).id))
}

/** Brings in a file of types, all or none. */
export async function importFile(
  text: string,
): Promise<Readonly<{ outcome: 'kept'; say: string }> | Readonly<{ outcome: 'refused'; faults: readonly string[] }>> {
  const person = await requireUser()
  if (text.length > LONGEST_FILE)
    return { outcome: 'refused', faults: ['This file is larger than 2 MB; types never are.'] }
  const read = readTypeFile(text)
  if (read.outcome === 'refused')
    return { outcome: 'refused', faults: read.faults.slice(0, 12).map((f) => `${f.pointer || 'File'}: ${f.reason}`) }
  const db = database()
  const told = await importTypes(db, {
    studioId: (await getStudio(db)).id,
    types: read.types,
    at: new Date(),
    by: person.id,
  })
  const parts = [
    ['new', told.added],
    ['changed', told.changed],
    ['unchanged', told.unchanged],
  ] as const
  return {
    outcome: 'kept',
    say: parts.flatMap(([word, names]) => (names.length > 0 ? [`${word}: ${names.join(', ')}`] : [])).join('; '),
  }
}

/** Adds machines of a type: "1-4 7" are five of them. */
export async function addMachines(lineId: string, typed: string): Promise<Answered<{ count: number }>> {
  await requireUser()
  const read = readLabels(typed)
  if (read.outcome === 'refused')
    return refused(
      read.reason === 'twice' ? `number ${read.at} stands twice` : 'type the bikes’ numbers, such as 1-4 or 7',
    )
  const numbers = read.labels.map(Number)
  const odd = numbers.findIndex((n) => !Number.isInteger(n) || n < 1 || n > 999)
  if (odd >= 0) return refused(`“${read.labels[odd]}” is no bike number; 1 to 999 are`)
  const db = database()
  const studio = await getStudio(db)
  const type = (await typesOf(db, studio.id)).find((t) => t.lineId === lineId)
  if (!type) return refused('this type does not exist')
  const { own } = machineFrom(type.bikeType, [], type.calibration?.sdMm)
  const taken = await addBikes(db, { studioId: studio.id, typeId: type.id, numbers, own })
  return taken.length > 0
    ? refused(`there is a bike ${taken.join(' and ')} already; none was added`)
    : { outcome: 'kept', count: numbers.length }
}

/** Keeps one setting's tape toward a type's calibration. */
export async function keepTape(id: string, typeId: string, row: TapeReading): Promise<Answered> {
  const person = await requireUser()
  const db = database()
  const type = isId(id) && isId(typeId) ? await typeById(db, typeId) : null
  if (!type) return refused('this type does not exist')
  const faults = tapeFaults(type.bikeType, row)
  if (faults !== '') return refused(faults)
  const { outcome } = await addTypeReading(db, { id, typeId, row, at: new Date(), by: person.id })
  return outcome === 'kept' ? { outcome } : refused(ID_TAKEN)
}

const MOST_READINGS = 200

/** Puts corrected readings in the place of all that were read wrongly alike, all or none. */
export async function correctTapes(typeId: string, replaced: readonly ReplacedReading[]): Promise<Answered> {
  const person = await requireUser()
  const db = database()
  const type = isId(typeId) ? await typeById(db, typeId) : null
  if (!type) return refused('this type does not exist')
  const whole = Array.isArray(replaced) && replaced.length > 0 && replaced.length <= MOST_READINGS
  if (!whole || !replaced.every((r) => r !== null && typeof r === 'object' && isId(r.id) && isId(r.newId)))
    return refused('the request was cut short')
  const faults = replaced.map(({ row }) => tapeFaults(type.bikeType, row)).find((fault) => fault !== '')
  if (faults) return refused(faults)
  const tidy = replaced.map(({ id, newId, row: { marks, lengths } }) => ({ id, newId, row: { marks, lengths } }))
  const { outcome } = await replaceTypeReadings(db, { typeId, replaced: tidy, at: new Date(), by: person.id })
  if (outcome === 'kept') return { outcome }
  return refused(
    outcome === 'gone' ? 'somebody took one of these readings back meanwhile; open the page again' : ID_TAKEN,
  )
}

export async function takeBackTape(id: string): Promise<Answered> {
  await requireUser()
  if (isId(id)) await withdrawTypeReading(database(), id, new Date())
  return { outcome: 'kept' }
}

/** Puts what the tape found in force: a new version with its geometry, and how sure it is on all machines of the type. */
export async function finishCalibration(id: string, typeId: string): Promise<Answered<{ lineId: string }>> {
  const person = await requireUser()
  const db = database()
  const type = isId(id) && isId(typeId) ? await typeById(db, typeId) : null
  if (!type) return refused('this type does not exist')
  const readings = (await typeReadings(db, typeId)).map((r) => r.row)
  const answer = await compute<CalibrateAnswer>('calibrate', { bikeType: type.bikeType, readings })
  if (isFault(answer)) return refused(answer.error.faults.map((f) => f.reason).join('; '))
  if (answer.outcome === 'refused') return refused(answer.say)
  const { bikeType, rmsMm, sdMm, expectedErrorMm } = answer
  const studio = await getStudio(db)
  const kept = { rmsMm, readings: readings.length, sdMm, expectedErrorMm }
  const written = await writeVersion(db, {
    id,
    studioId: studio.id,
    baseId: typeId,
    whole: { bikeType, sheet: type.sheet },
    calibration: kept,
    at: new Date(),
    by: person.id,
  })
  if (written.outcome !== 'kept') return refused('this type was changed meanwhile; open it anew, the readings are kept')
  return { outcome: 'kept', lineId: written.lineId }
}

/** What a machine's tape says against what is known: agreement, or what disagrees and why. Nothing is kept. */
export async function weighTape(
  bikeId: string,
  row: TapeReading,
  shown: LengthShown,
): Promise<Answered<{ says: readonly string[] }>> {
  await requireUser()
  const db = database()
  const bike = isId(bikeId) ? await bikeById(db, bikeId) : null
  if (!bike) return refused('this bike does not exist')
  const faults = tapeFaults(bike.type, row)
  if (faults !== '') return refused(faults)
  const before = (await readingsOf(db, bikeId)).some((r) => r.row.kind === 'tape')
  return {
    outcome: 'kept',
    says: before
      ? disagreements(bike.type, bike.own, row).map((d) => disagreementSaid(d, shown === 'feet' ? 'feet' : 'metric'))
      : [],
  }
}

/** What is wrong with a reading of the tape, in words; nothing where it may be kept. */
function tapeFaults(bikeType: WholeType['bikeType'], sent: TapeReading): string {
  const { marks, lengths } = sent ?? {}
  const faults = requestFaults('calibrate', { bikeType, readings: [{ marks, lengths }] })
  if (faults.length === 0 && Object.keys(lengths).length === 0) return 'no length was read'
  return faults.map((f) => f.reason).join('; ')
}

/** Keeps what was measured on one machine and puts it in force. `anew`: the bike has changed, earlier tapes no longer count. */
export async function keepMeasured(id: string, bikeId: string, sent: BikeReading, anew = false): Promise<Answered> {
  const person = await requireUser()
  const row = tidied(sent ?? {})
  if (!row) return refused('this reading is of no known kind')
  const db = database()
  const bike = isId(id) && isId(bikeId) ? await bikeById(db, bikeId) : null
  if (!bike) return refused('this bike does not exist')
  const odd = oddReading(row) || (row.kind === 'tape' ? tapeFaults(bike.type, row) : '')
  if (odd) return refused(odd)
  const kept = row.kind === 'tape' && anew ? { ...row, anew: true } : row
  return withTransaction(db, async (tx) => {
    await lockMachine(tx, bikeId)
    const { outcome } = await addBikeReading(tx, { id, bikeId, row: kept, at: new Date(), by: person.id })
    if (outcome !== 'kept') return refused(ID_TAKEN)
    await recomputeMachine(tx, bikeId)
    return { outcome }
  })
}

export async function takeBackMeasured(bikeId: string, id: string): Promise<Answered> {
  await requireUser()
  if (!isId(bikeId) || !isId(id)) return refused('the request was cut short')
  await withTransaction(database(), async (tx) => {
    await lockMachine(tx, bikeId)
    await withdrawBikeReading(tx, bikeId, id, new Date())
    await recomputeMachine(tx, bikeId)
  })
  return { outcome: 'kept' }
}

/** A reading as it is kept: its own fields only. Null where it is none this version knows. */
function tidied(row: BikeReading): BikeReading | null {
  switch (row.kind) {
    case 'tape':
      return { kind: 'tape', marks: row.marks, lengths: row.lengths }
    case 'tilt':
      return {
        kind: 'tilt',
        deg: row.deg,
        floorDeg: row.floorDeg,
        across: row.across === 'frontHalf' ? 'frontHalf' : 'highestPoints',
      }
    case 'saddleLine':
      return { kind: 'saddleLine', mm: row.mm, afterClosing: row.afterClosing === true }
    default:
      return null
  }
}

function oddReading(row: BikeReading): string {
  if (row.kind === 'tilt')
    return [row.deg, row.floorDeg].every((deg) => Number.isFinite(deg) && Math.abs(deg) <= 30)
      ? ''
      : 'an angle beyond 30° cannot be'
  if (row.kind === 'saddleLine')
    return Number.isFinite(row.mm) && Math.abs(row.mm) <= 60 ? '' : 'a nose 60 mm off its line cannot be'
  return ''
}

/** Takes a machine out again that was added by mistake; one that anything was recorded on stays. */
export async function removeMachine(bikeId: string): Promise<Answered> {
  await requireUser()
  if (!isId(bikeId)) return refused('the request was cut short')
  const removed = await removeBike(database(), bikeId)
  return removed
    ? { outcome: 'kept' }
    : refused('something was recorded on this bike already; a fault on it keeps it out of use')
}

/** Keeps one look over a machine: every item good, or with a note what is wrong. */
export async function lookOver(
  id: string,
  bikeId: string,
  wrong: readonly Readonly<{ id: string; item: InspectionItem; note: string }>[],
): Promise<Answered> {
  const person = await requireUser()
  const db = database()
  if (!isId(id) || !isId(bikeId) || !(await bikeById(db, bikeId))) return refused('this bike does not exist')
  if (
    !Array.isArray(wrong) ||
    !wrong.every((w) => isId(w?.id) && INSPECTION_ITEMS.includes(w.item) && typeof w.note === 'string')
  )
    return refused('the request was cut short')
  if (new Set(wrong.map((w) => w.item)).size < wrong.length || new Set(wrong.map((w) => w.id)).size < wrong.length)
    return refused('one item stands twice')
  const faults = wrong.map(({ id: faultId, item, note }) => ({ id: faultId, item, note: note.trim().slice(0, 300) }))
  const good = INSPECTION_ITEMS.filter((item) => !faults.some((f) => f.item === item))
  const { outcome } = await withTransaction(db, (tx) =>
    recordInspection(tx, { id, bikeId, good, faults, at: new Date(), by: person.id }),
  )
  return outcome === 'kept'
    ? { outcome }
    : refused(
        'an earlier try for this bike was kept, with something else wrong. Open the round again and look it over once more',
      )
}

/** A fault is mended: the bike is offered again. */
export async function clear(bikeId: string, id: string): Promise<Answered> {
  const person = await requireUser()
  if (!isId(bikeId) || !isId(id)) return refused('the request was cut short')
  await clearFault(database(), bikeId, id, new Date(), person.id)
  return { outcome: 'kept' }
}
