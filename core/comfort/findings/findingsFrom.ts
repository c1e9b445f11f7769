import type { Bike, BikeType } from '../../bikes/bike/bike'
import { axisPositions, contactPoints } from '../../bikes/bike/contactPoints'
import { AXES, type Marks } from '../../base/conventions'
import { isBarCheck } from '../../riders/evidence/evidence'
import { plumbFromFrontMm } from '../../riders/evidence/kinds/onBike/plumb'
import type { Evidence } from '../../riders/evidence/registry'
import { nearestPlace, turnDeg } from '../../classes/planning/sightLine'
import type { RoomPlan, FloorPosition } from '../../classes/planning/roomPlan'
import type { Basis, Footwear } from '../../setups/register/entry'
import type { School } from '../../base/school/school'
import { signNamed } from '../../classes/watch/signs'
import type { Finding } from '../model/request'

/** Rows of a finished set-up and the marks it ended with; `daysAgo` since it was finished. */
export type FinishedRows = Readonly<{
  evidence: readonly Evidence[]
  marks: Marks
  daysAgo: number
  otherType: boolean
}>

/** The same knee seen by eye is a note like one of the class. */
const SEEN_BY_EYE: Readonly<Record<string, string>> = {
  locked: 'locked',
  deepBend: 'deepBend',
  pastToes: 'aheadOfToes',
}

/**
 * What a set-up found at the marks it ended with, the latest of each kind; of the bars at all four marks: what was
 * read at marks that are no longer set is no evidence for a complaint now. A leg in motion, and a foot on its heel, are
 * no reading of this kind.
 */
export function findingsOfSetup(
  { evidence, marks, daysAgo, otherType }: FinishedRows,
  school: Pick<School, 'plumbFrom'>,
): Finding[] {
  const age = { daysAgo: Math.max(0, daysAgo), ...(otherType && { otherType }) }
  const found = new Map<string, Finding>()
  for (const row of evidence) {
    if (!atTheseMarks(row, marks)) continue
    const finding = findingOf(row, school)
    if (finding) found.set(finding.kind === 'seen' ? finding.what : finding.kind, { ...finding, ...age })
  }
  return [...found.values()]
}

const SADDLE_AXES = ['seatHeight', 'seatSlide'] as const

const atTheseMarks = (row: Evidence, marks: Marks): boolean =>
  row.at === undefined ||
  (isBarCheck(row) ? AXES : SADDLE_AXES).every((axis) => (row.at![axis] ?? marks[axis]) === marks[axis])

function findingOf(row: Evidence, school: Pick<School, 'plumbFrom'>): Finding | null {
  switch (row.kind) {
    case 'kneeAngle':
      return row.foot === 'heel' || row.moving ? null : { kind: 'kneeAngle', deg: row.deg }
    case 'plumb':
      return { kind: 'plumb', mm: plumbFromFrontMm(row, school) }
    case 'elbows':
      return { kind: 'elbows', seen: row.seen }
    case 'reachFeel':
      return { kind: 'reachFeel', seen: row.seen }
    case 'clearance':
      return { kind: 'clearance', seen: row.seen }
    case 'heelCheck':
      return { kind: 'heelCheck', seen: row.seen }
    case 'trunkAngle':
    case 'footPitch':
      return { kind: row.kind, deg: row.deg }
    case 'forearmGauge':
      return { kind: 'forearmGauge', mm: row.gapMm }
    case 'build': {
      const { torso, heavyUpperBody, tightHips } = row
      return { kind: 'build', torso, ...(heavyUpperBody && { heavyUpperBody }), ...(tightHips && { tightHips }) }
    }
    case 'rocking':
      return row.foot === 'heel' ? null : { kind: 'rocking', seen: row.seen }
    case 'kneeByEye':
    case 'plumbByEye': {
      if (row.seen === 'slightBend') return { kind: 'kneeByEye', seen: 'slightBend' }
      const what = SEEN_BY_EYE[row.seen]
      return what ? { kind: 'seen', region: 'knees', what } : null
    }
    default:
      return null
  }
}

/** A note of a class, as far as `explain` goes; null for what is felt and for red flags. */
export function findingOfNote(
  note: Readonly<{ sign: string; side: 'left' | 'right' | 'both'; held: boolean | null; daysAgo: number }>,
): Finding | null {
  const sign = signNamed(note.sign)
  if (!sign) return null
  return {
    kind: 'seen',
    region: sign.region,
    what: sign.sign,
    ...(sign.sided && { side: note.side }),
    ...(note.held !== null && { held: note.held }),
    daysAgo: Math.max(0, note.daysAgo),
  }
}

/**
 * The grip against the saddle at these marks of a machine with its own offsets, mm: plus above it; null where an
 * axis has no mark.
 */
export function barsFinding(bikeType: BikeType, bike: Bike | undefined, marks: Marks): Finding | null {
  if (marks.seatHeight === undefined || marks.barHeight === undefined) return null
  const { grip, seat } = contactPoints(bikeType, bike, axisPositions(bikeType, marks))
  return { kind: 'barsAgainstSaddle', mm: grip.yMm - seat.yMm }
}

/** How far aside instructor or nearest screen lie from where somebody rode, whichever is farther. */
export function viewFinding(
  bikePlace: FloorPosition,
  room: Pick<RoomPlan, 'instructor' | 'screens'>,
  daysAgo: number,
): Finding {
  const screen = nearestPlace(bikePlace, room.screens)
  const turns = [room.instructor, ...(screen ? [screen] : [])].map((place) => turnDeg(bikePlace, place))
  const deg = turns.reduce((most, turn) => (Math.abs(turn) > Math.abs(most) ? turn : most))
  return { kind: 'viewAngle', deg, daysAgo: Math.max(0, daysAgo) }
}

/** An entry of the register, as far as what it changed goes. */
export type EntryChange = Readonly<{
  set: string
  marks: Marks
  footwear: Footwear
  basis: Basis
  daysAgo: number
}>

/**
 * Changes by the entries of the register, the latest first: other numbers than before, other soles and
 * pedals, and changes that were reported. Each kind once, the latest.
 */
export function changesOf(entries: readonly EntryChange[]): Finding[] {
  const found = new Map<string, Finding>()
  const changed = (what: Extract<Finding, { kind: 'changed' }>['what'], { daysAgo }: EntryChange) => {
    if (!found.has(what)) found.set(what, { kind: 'changed', what, daysAgo: Math.max(0, daysAgo) })
  }
  entries.forEach((entry, i) => {
    const before = entries.slice(i + 1).find(({ set }) => set === entry.set)
    const change = entry.basis.change?.what
    if (change === 'shoes' || change === 'cleats') changed(change, entry)
    if (change === 'saddle' || change === 'gelCover') changed('saddle', entry)
    if (!before) return
    if (JSON.stringify(sorted(before.marks)) !== JSON.stringify(sorted(entry.marks))) changed('numbers', entry)
    const soles = [before.footwear.soleMm, entry.footwear.soleMm]
    const pedals = [before.footwear.pedal, entry.footwear.pedal]
    if (areOthers(soles) || areOthers(pedals)) changed('shoes', entry)
  })
  return [...found.values()]
}

const sorted = (marks: Marks) => Object.entries(marks).toSorted(([a], [b]) => (a < b ? -1 : 1))
const areOthers = ([a, b]: readonly unknown[]): boolean => a !== undefined && b !== undefined && a !== b

/** Whether somebody rode another type than before, by their rides with the latest first. */
export function bikeChange(rides: readonly Readonly<{ lineId: string; daysAgo: number }>[]): Finding | null {
  if (rides.length === 0) return null
  const since = rides.findIndex(({ lineId }) => lineId !== rides[0].lineId)
  return since < 1 ? null : { kind: 'changed', what: 'bike', daysAgo: Math.max(0, rides[since - 1].daysAgo) }
}
