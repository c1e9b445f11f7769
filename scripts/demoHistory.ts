/**
 * Twenty weeks behind the demo hall: some sixty more members, set-ups on all three types, classes with notes and cues,
 * complaints and trials in each state. Simulated riders make them through the use cases of the product, seeded; dates
 * count back from today. Three things are hidden in it for the product to find: the saddle of bike 19 points to the
 * left, the seat of bike 12 stands low, and one cue holds more often than the others.
 */
import { createRng } from '../core/rng'
import type { Marks } from '../core/conventions'
import type { Evidence } from '../core/evidence/registry'
import type { Purpose } from '../core/register/entry'
import { priorFor } from '../core/rider/prior'
import {
  crestAtMark,
  drawRider,
  goniometer,
  inAnotherSetup,
  kneeByEye,
  plumbLine,
  trueFlexionDeg,
  truePlumbMm,
  type SimulatedRider,
} from '../core/simulated/simulatedRider'
import { tapeAt } from '../core/simulated/simulatedTape'
import { TAPE_SD_MM } from '../core/calibration/fitTape'
import { axesOf, axisOf, type BikeType } from '../core/bike/bike'
import { positionsOf } from '../core/scale/scale'
import { signNamed } from '../core/watch/signs'
import type { Scope } from '../server/accounts/scope'
import { listBikes, type StudioBike } from '../server/bikes/bikes'
import { addTapeReading } from '../server/bikes/tapeReadings'
import { replaceAssignments } from '../server/classes/assignments'
import { addClass, changeClass } from '../server/classes/classes'
import { addNote, changeNote } from '../server/classes/notes'
import { replanClass } from '../server/classes/replan'
import { bookRider } from '../server/classes/roster'
import { addLook, addRoomCue } from '../server/classes/watch'
import { addComplaint, closeComplaint, handOn } from '../server/comfort/complaints'
import { reasonsOf, startTrial } from '../server/comfort/reasons'
import { endTrial, rateTrial } from '../server/comfort/trialChanges'
import type { Database } from '../server/db/connection'
import * as riderTables from '../server/db/tables/riders'
import { addWords } from '../server/members/words'
import { currentEntries, recordEntry } from '../server/register/register'
import { appendEvidence, finishSetup } from '../server/setups/evidence'
import { startSetup } from '../server/setups/setups'
import { dayAfter, momentAt, studioDay } from '../server/studio/day'
import { BLOCKS, MEMBERS, ROOM, STUDIO, TYPES } from './netloftHall'

const SEED = 7041
const WEEKS = 20
const DAY_MS = 86_400_000
/** Together with the first thirty some ninety members. */
const MORE_MEMBERS = 60
/** Members from here on have no numbers: the newcomers of the coming days. */
const WITHOUT_NUMBERS = 80

const FIRST = [
  'Aldis',
  'Brynja',
  'Corwin',
  'Dervla',
  'Eskil',
  'Frida',
  'Gwennan',
  'Hollis',
  'Ingvar',
  'Josune',
  'Kerensa',
]
const MORE = ['Lowen', 'Maelle', 'Njord', 'Oriel', 'Piran', 'Rosmund', 'Sunniva', 'Torquil', 'Una', 'Vesper', 'Wenna']
const LAST = ['Ashgrove', 'Birkeland', 'Carrow', 'Dunmoor', 'Eldritch', 'Fossheim', 'Garnock', 'Holmquist', 'Islay']
const NAMES = ['Jarrow', 'Kilbride', 'Lomond', 'Marlow', 'Nesbit', 'Orwell', 'Penrose', 'Rannoch', 'Selwood', 'Tarrant']

/** The saddle of this bike points to the left: whoever rides it is sore on that side. */
const TWISTED_BIKE = 19
/** The seat of this machine stands lower than its marks say, mm. */
const LOW_BIKE = { number: 12, standsMm: -10 }
/** The cue for this sign holds more often than the others. */
const GOOD_CUE = 'shrugged'
const CUED_SIGNS = ['shrugged', 'toesDown', 'kneesOut', 'bouncing', 'turnedHead', 'rounded', 'lockedElbows'].filter(
  (sign) => signNamed(sign) !== undefined,
)
/** How often a cue holds, and the good one; ours. */
const HOLDS = { usual: 0.3, good: 0.85 }
/** How an eye strays that reads knees for years without an instrument beside it; ours. */
const EYE = { biasDeg: 3, sdDeg: 4 }

const WEEKLY = [
  { day: 1, time: '07:00', title: 'Dawn Ride', minutes: 45 },
  { day: 2, time: '12:15', title: 'Noon Spin', minutes: 30 },
  { day: 3, time: '18:00', title: 'Dusk Ride', minutes: 45 },
  { day: 6, time: '09:30', title: 'Long Sunday', minutes: 75 },
] as const

type Hall = Readonly<{
  db: Database
  now: Date
  scopes: readonly Scope[]
  bikes: readonly StudioBike[]
  riders: readonly Rider[]
}>
type Rider = Readonly<{ id: string; home: keyof typeof TYPES; body: SimulatedRider; experience: Experience }>
type Experience = (typeof MEMBERS)[number]['experience']

/** Adds the history to the seeded hall, within the caller's transaction. */
export async function addHistory(db: Database, scopes: readonly Scope[], now: Date): Promise<void> {
  const bikes = await listBikes(db, scopes[0])
  const riders = await addMembers(db, scopes[0], now)
  const hall = { db, now, scopes, bikes, riders }
  await addTapes(hall)
  await addSetups(hall)
  await addPurposes(hall)
  await addClasses(hall)
  await addTrials(hall)
  for (const i of [WITHOUT_NUMBERS, WITHOUT_NUMBERS + 3, WITHOUT_NUMBERS + 5])
    await bookRider(
      db,
      scopes[0],
      { classId: 'class-dusk', memberId: memberId(i), state: 'booked', comesMinBefore: 15 },
      daysBefore(now, 1),
    )
  await replanClass(db, scopes[0], 'class-dusk', now, { kept: 'here' })
}

const memberId = (i: number): string => `member-${String(i + 1).padStart(2, '0')}`
const daysBefore = (now: Date, days: number): Date => new Date(now.getTime() - days * DAY_MS - 3_600_000)

async function addMembers(db: Database, scope: Scope, now: Date): Promise<Rider[]> {
  const random = createRng(SEED)
  const [firsts, lasts] = [
    [...FIRST, ...MORE],
    [...LAST, ...NAMES],
  ]
  const added = Array.from({ length: MORE_MEMBERS }, (_, i) => ({
    id: memberId(MEMBERS.length + i),
    // 22 and 19 share no divisor: no name occurs twice.
    name: `${firsts[i % firsts.length]} ${lasts[(i * 5) % lasts.length]}`,
  }))
  await db.insert(riderTables.member).values(
    added.map(({ id, name }, i) => ({
      id,
      studioId: STUDIO.id,
      name,
      createdAt: daysBefore(now, WEEKS * 7 + 5 - 2 * i),
      createdBy: scope.userId,
    })),
  )
  await addWords(db, scope, added)
  const homes = ['sorrel', 'meadowsweet', 'bracken'] as const
  return Array.from({ length: MEMBERS.length + MORE_MEMBERS }, (_, i): Rider => {
    const statureMm = MEMBERS[i]?.statureMm ?? Math.round(1690 + 85 * random.normal())
    const home = homes[i % 3]
    const population = priorFor('natural', { statureMm: { mean: statureMm, sd: 0 } })
    const experience = MEMBERS[i]?.experience ?? (['new', 'regular', 'experienced'] as const)[i % 3]
    return { id: memberId(i), home, experience, body: drawRider(population, TYPES[home], createRng(SEED + i)) }
  })
}

/** Six readings of the tape on each type, on the version in force. */
async function addTapes({ db, scopes, now }: Hall): Promise<void> {
  for (const [t, [typeId, type]] of Object.entries(TYPES).entries()) {
    const random = createRng(SEED + 500 + t)
    for (const [k, share] of [0.2, 0.4, 0.6, 0.8, 0.35, 0.7].entries()) {
      const marks: Marks = Object.fromEntries(
        axesOf(type).map((axis, a) => {
          const positions = positionsOf(axisOf(type, axis)!.scale)
          const at = a % 2 === 0 ? share : 1 - share
          return [axis, positions[Math.round(at * (positions.length - 1))].label]
        }),
      )
      const { lengths } = tapeAt(type, marks, random, TAPE_SD_MM)
      const read = Object.fromEntries(Object.entries(lengths).map(([name, mm]) => [name, Math.round(mm!)]))
      await addTapeReading(
        db,
        scopes[0],
        { id: `tape-${typeId}-${k}`, typeId, row: { marks, lengths: read } },
        daysBefore(now, 69),
      )
    }
  }
}

/** A first set-up for most members, a second one for some, and one on the machine that stands low for fourteen. */
async function addSetups(hall: Hall): Promise<void> {
  const { riders, bikes } = hall
  const usable = bikes.filter(({ openFaults }) => openFaults === 0)
  const ofType = (type: string) => usable.filter(({ lineId }) => lineId === type)
  const low = bikes.find(({ number }) => number === LOW_BIKE.number)!
  for (const [i, rider] of riders.slice(10, WITHOUT_NUMBERS).entries()) {
    const own = ofType(rider.home).filter(({ id }) => id !== low.id)
    await addSetup(hall, rider, own[i % own.length], 8 + ((i * 37) % 125), i)
    if (rider.home === 'sorrel' && i % 3 === 2) await addSetup(hall, rider, low, 6 + (i % 60), 200 + i)
    else if (i % 4 === 1) {
      const others = usable.filter(({ lineId, id }) => lineId !== rider.home && id !== low.id)
      await addSetup(hall, rider, others[(i * 5) % others.length], 3 + ((i * 11) % 40), 100 + i)
    }
  }
}

/** A set-up as it would have gone: landmark, then a glance, an instrument and the plumb line, until nothing moves. */
async function addSetup({ db, now, scopes }: Hall, rider: Rider, bike: StudioBike, daysAgo: number, k: number) {
  const type = TYPES[bike.lineId as keyof typeof TYPES]
  const body = bodyOn(rider, bike)
  const scope = scopes[k % 2]
  const measures = k % 3 !== 0
  const evidence: Evidence[] = [{ kind: 'rider', experience: rider.experience }, crestAtMark(body)]
  let at = startAt(body, type, evidence)
  for (let mounts = 0; mounts < (measures ? 3 : 2); mounts++) {
    evidence.push({ kind: 'set', at }, kneeByEye(body, at, EYE))
    const [read, plumb] = [goniometer(body, at), plumbLine(body, at)]
    if (measures)
      evidence.push(
        { ...read, deg: Math.max(-15, Math.min(80, Math.round(read.deg))) },
        { ...plumb, mm: Math.max(-100, Math.min(100, 2 * Math.round(plumb.mm / 2))) },
      )
    const better = nearerMarks(body, type, at, { deg: read.deg, mm: plumb.mm })
    if (better.seatHeight === at.seatHeight && better.seatSlide === at.seatSlide) break
    at = better
  }
  const last = evidence.findLast((row) => row.kind === 'set')!
  const finishedAt = daysBefore(now, daysAgo)
  const timeAt = (s: number) => new Date(finishedAt.getTime() - 420_000 + 1000 * s)
  const id = `history-setup-${rider.id}-${k}`
  await startSetup(db, scope, { id, memberId: rider.id, bikeId: bike.id }, timeAt(0))
  for (const [i, row] of evidence.entries())
    await appendEvidence(db, scope, id, { id: `${id}-${i}`, row }, timeAt(20 * (i + 1)))
  await finishSetup(db, scope, id, { id: `${id}-numbers`, marks: last.at! }, finishedAt)
}

/** A rider on a machine as it truly stands: its known offset, and what is hidden of bike 12. */
function bodyOn(rider: Rider, { lineId, number, machineCalibration }: StudioBike): SimulatedRider {
  const hiddenMm = number === LOW_BIKE.number ? LOW_BIKE.standsMm : 0
  const standsMm = (machineCalibration.offsetsMm?.seatHeight ?? 0) + hiddenMm
  return inAnotherSetup(rider.body, TYPES[lineId as keyof typeof TYPES], 0, standsMm)
}

/** Where a set-up begins: the saddle at the hip crest, everything else at its middle. */
function startAt({ bikeType }: SimulatedRider, type: BikeType, evidence: readonly Evidence[]): Marks {
  const crest = evidence.find((row) => row.kind === 'landmarkAtMark')!
  const middle = Object.fromEntries(
    axesOf(bikeType).map((axis) => {
      const positions = positionsOf(axisOf(type, axis)!.scale)
      return [axis, positions[Math.floor(positions.length / 2)].label]
    }),
  )
  return { ...middle, ...crest.at }
}

/** The saddle's marks that bring knee and plumb line nearest to 30° and 0 mm, by what was read at these. */
function nearerMarks(
  body: SimulatedRider,
  type: BikeType,
  at: Marks,
  read: Readonly<{ deg: number; mm: number }>,
): Marks {
  const [degOff, mmOff] = [read.deg - trueFlexionDeg(body, at), read.mm - truePlumbMm(body, at)]
  const best = <T>(all: readonly T[], off: (one: T) => number): T => all.reduce((a, b) => (off(b) < off(a) ? b : a))
  const slide = best(positionsOf(axisOf(type, 'seatSlide')!.scale), ({ label }) =>
    Math.abs(truePlumbMm(body, { ...at, seatSlide: label }) + mmOff),
  )
  const height = best(positionsOf(axisOf(type, 'seatHeight')!.scale), ({ label }) =>
    Math.abs(trueFlexionDeg(body, { ...at, seatSlide: slide.label, seatHeight: label }) + degOff - 30),
  )
  return { ...at, seatHeight: height.label, seatSlide: slide.label }
}

/** These marks with the seat so low that the knee bends by about 42°. */
function lowered(body: SimulatedRider, type: BikeType, at: Marks): Marks {
  const bendOff = (label: string) => Math.abs(trueFlexionDeg(body, { ...at, seatHeight: label }) - 42)
  const labels = positionsOf(axisOf(type, 'seatHeight')!.scale).map(({ label }) => label)
  return { ...at, seatHeight: labels.reduce((a, b) => (bendOff(b) < bendOff(a) ? b : a)) }
}

/** Numbers kept for another purpose, and some that riders only told. */
async function addPurposes({ db, now, scopes, riders }: Hall): Promise<void> {
  const purposes: readonly Purpose[] = ['upright', 'starter', 'road']
  for (const [i, rider] of riders.slice(12, 30).entries()) {
    const [entry] = await currentEntries(db, scopes[0], [rider.id])
    if (!entry) continue
    const bars = positionsOf(axisOf(entry.type, 'barHeight')!.scale)
    const at = bars.findIndex(({ label }) => label === entry.marks.barHeight)
    const marks = { ...entry.marks, barHeight: bars[Math.min(bars.length - 1, at + 2)].label }
    await recordEntry(
      db,
      scopes[i % 2],
      {
        id: `history-purpose-${rider.id}`,
        memberId: rider.id,
        lineId: entry.lineId,
        typeId: entry.typeId,
        purpose: purposes[i % 3],
        source: i % 2 === 0 ? 'imported' : 'restored',
        certainty: i % 2 === 0 ? 'told' : 'checked',
        marks,
      },
      daysBefore(now, 20 - i),
    )
  }
}

/** Four classes a week, a dozen riders and more each, with what was seen, said and felt. */
async function addClasses(hall: Hall): Promise<void> {
  const { now } = hall
  const monday = dayAfter(studioDay(now, STUDIO.timeZone), -((now.getUTCDay() + 6) % 7))
  for (let week = WEEKS; week >= 0; week--)
    for (const [c, one] of WEEKLY.entries()) {
      const startsAt = momentAt(dayAfter(monday, one.day - 7 * week), one.time, STUDIO.timeZone)
      const endsAt = new Date(startsAt.getTime() + one.minutes * 60_000)
      const days = (now.getTime() - endsAt.getTime()) / DAY_MS
      // The base data has the classes of yesterday and the days to come.
      if (days > 1.2 && days < WEEKS * 7) await addPastClass(hall, { ...one, week, c, startsAt, endsAt })
    }
}

type PastClass = Readonly<{ week: number; c: number; title: string; minutes: number; startsAt: Date; endsAt: Date }>

async function addPastClass({ db, scopes, bikes, riders }: Hall, past: PastClass): Promise<void> {
  const { week, c, title, minutes, startsAt, endsAt } = past
  const random = createRng(SEED + 1000 + 10 * week + c)
  const scope = scopes[(week + c) % 2]
  const id = `history-class-${week}-${c}`
  await addClass(db, scope, { id, title, startsAt, endsAt, roomId: ROOM.id }, daysBefore(startsAt, 10))
  if (minutes === 45) await changeClass(db, scope, id, { blocks: BLOCKS })
  const usable = bikes.filter(({ openFaults }) => openFaults === 0)
  const who = shuffled(riders.slice(0, WITHOUT_NUMBERS), random).slice(0, 12 + Math.floor(5 * random.uniform()))
  const seats = new Map(shuffled(usable, random).map((bike, i) => [bike.id, who[i]?.id]))
  const taken = new Map([...seats].flatMap(([bikeId, rider]) => (rider ? [[bikeId, rider] as const] : [])))
  for (const memberIdOf of taken.values())
    await bookRider(db, scope, { classId: id, memberId: memberIdOf, state: 'here', comesMinBefore: 10 }, startsAt)
  await replaceAssignments(db, scope, id, taken, startsAt)
  const numberOf = new Map(usable.map((bike) => [bike.id, bike.number]))
  let n = 0
  for (const [bikeId, rider] of taken) {
    const minute = 4 + Math.floor((minutes - 10) * random.uniform())
    const at = new Date(startsAt.getTime() + minute * 60_000)
    const note = { memberId: rider, bikeId, classId: id, minute, createdAt: at }
    const isTwisted = numberOf.get(bikeId) === TWISTED_BIKE
    if (random.uniform() < (isTwisted ? 0.25 : 0.025)) {
      const side = isTwisted || random.uniform() < 0.5 ? 'left' : 'right'
      const felt = { region: 'feltSaddle', sign: 'felt', side, score: 2 + Math.floor(3 * random.uniform()) } as const
      await addNote(db, scope, { id: `${id}-felt-${n++}`, ...note, ...felt })
    } else if (random.uniform() < 0.05) {
      const region = ['feltLowBack', 'feltHands', 'feltNeck', 'feltKneeFront'][n % 4]
      const felt = { region, sign: 'felt', side: 'both', score: 2 + Math.floor(4 * random.uniform()) } as const
      await addNote(db, scope, { id: `${id}-felt-${n++}`, ...note, ...felt })
    } else if (random.uniform() < 0.3) {
      const sign = CUED_SIGNS[Math.floor(CUED_SIGNS.length * random.uniform())]
      const { region, sided } = signNamed(sign)!
      const noteId = `${id}-note-${n++}`
      const seen = { region, sign, side: sided ? 'left' : 'both', strength: 'clear', cued: true } as const
      await addNote(db, scope, { id: noteId, ...note, ...seen })
      const held = random.uniform() < (sign === GOOD_CUE ? HOLDS.good : HOLDS.usual)
      await changeNote(db, scope, noteId, { held }, new Date(at.getTime() + 150_000))
    } else if (week < 3 && random.uniform() < 0.7)
      await addLook(db, scope, {
        id: `${id}-look-${n++}`,
        classId: id,
        memberId: rider,
        bikeId,
        numbers: false,
        createdAt: at,
      })
  }
  if (week < 4) {
    const concerned = [...taken.values()].slice(0, 4)
    const { cue } = signNamed(GOOD_CUE)!
    const at = new Date(startsAt.getTime() + 15 * 60_000)
    await addRoomCue(db, scope, { id: `${id}-room`, classId: id, sign: GOOD_CUE, cue, concerned, createdAt: at })
  }
}

/** In a new order, by the draws of `random` (Fisher and Yates). */
function shuffled<T>(all: readonly T[], random: ReturnType<typeof createRng>): T[] {
  const list = [...all]
  for (let i = list.length - 1; i > 0; i--) {
    const j = Math.floor((i + 1) * random.uniform())
    ;[list[i], list[j]] = [list[j], list[i]]
  }
  return list
}

type TrialState = 'early' | 'due' | 'worse' | 'keep' | 'undo' | 'next'
/** A rider's trial: how it stands, how many days ago it began, and the ratings since. */
const TRIALS: readonly Readonly<{ state: TrialState; daysAgo: number; ratings: readonly number[] }>[] = [
  { state: 'early', daysAgo: 3, ratings: [5] },
  { state: 'due', daysAgo: 16, ratings: [4, 3, 2] },
  { state: 'worse', daysAgo: 9, ratings: [7, 8] },
  { state: 'keep', daysAgo: 60, ratings: [4, 2, 1] },
  { state: 'keep', daysAgo: 80, ratings: [5, 3, 1] },
  { state: 'keep', daysAgo: 45, ratings: [3, 2, 2] },
  { state: 'undo', daysAgo: 50, ratings: [6, 7, 7] },
  { state: 'next', daysAgo: 30, ratings: [6, 5, 6] },
]

/** Complaints in each state: referred, over, open; and trials in each. */
async function addTrials(hall: Hall): Promise<void> {
  const { db, now, scopes, riders } = hall
  const waiting = riders.slice(18, 72)
  for (const [t, { state, daysAgo, ratings }] of TRIALS.entries())
    for (const rider of [...waiting]) {
      const tried = await addTrial(hall, rider, t, state, daysAgo, ratings)
      if (tried !== 'tooNew') waiting.splice(waiting.indexOf(rider), 1)
      if (tried === 'begun') break
    }
  const [scope] = scopes
  const plain = { side: 'both', moment: 'late', lasts: false } as const
  const add = (
    id: string,
    member: Rider,
    what: 'hands' | 'neck' | 'lowBack' | 'outerKnee',
    days: number,
    more: object,
  ) => addComplaint(db, scope, { id, memberId: member.id, what, strength: 5, ...plain, ...more }, daysBefore(now, days))
  await add('history-referred', riders[11], 'lowBack', 2, { side: 'left', quality: ['sharp'], strength: 7 })
  await add('history-handed', riders[72], 'outerKnee', 12, { side: 'right', quality: ['swelling'] })
  await handOn(db, scope, 'history-handed', 'the rider, and the desk', daysBefore(now, 11))
  await add('history-over', riders[73], 'neck', 40, {})
  await closeComplaint(db, scope, 'history-over', daysBefore(now, 20))
  for (const [i, what] of (['hands', 'neck', 'lowBack'] as const).entries())
    await add(`history-open-${i}`, riders[14 + i], what, 4 + i, {})
}

/** One complaint of the knee, measured, and its trial; not where numbers are newer or no change is proposed. */
async function addTrial(
  { db, now, scopes, bikes }: Hall,
  rider: Rider,
  t: number,
  state: TrialState,
  daysAgo: number,
  ratings: readonly number[],
): Promise<'begun' | 'tooNew' | 'noChange'> {
  const scope = scopes[t % 2]
  const begun = daysBefore(now, daysAgo)
  const [entry, ...others] = await currentEntries(db, scope, [rider.id])
  const own = bikes.filter(
    ({ lineId, openFaults, number }) => lineId === entry?.lineId && openFaults === 0 && number !== LOW_BIKE.number,
  )
  const bike = own.length > 0 ? own[t % own.length] : undefined
  // Who has numbers for several types was last seen on another one.
  if (!entry || others.length > 0 || !bike || entry.createdAt > daysBefore(now, daysAgo + 2)) return 'tooNew'
  // Somebody set the seat too low since, and the knee was measured: without a measurement no seat height is moved.
  const setupId = `history-check-${rider.id}`
  const checkedAt = daysBefore(now, daysAgo + 1)
  const body = bodyOn(rider, bike)
  const marks = lowered(body, entry.type, entry.marks)
  await startSetup(db, scope, { id: setupId, memberId: rider.id, bikeId: bike.id }, checkedAt)
  const rows: readonly Evidence[] = [
    { kind: 'set', at: marks },
    { ...goniometer(body, marks), deg: Math.round(trueFlexionDeg(body, marks)) },
  ]
  for (const [i, row] of rows.entries())
    await appendEvidence(db, scope, setupId, { id: `${setupId}-${i}`, row }, checkedAt)
  await finishSetup(db, scope, setupId, { id: `${setupId}-numbers`, marks }, checkedAt)
  const complaint = {
    id: `history-complaint-${rider.id}`,
    memberId: rider.id,
    what: 'frontKnee',
    side: 'left',
  } as const
  await addComplaint(db, scope, { ...complaint, strength: 6, moment: 'seated', lasts: false }, checkedAt)
  const { answer } = await reasonsOf(db, scope, rider.id, begun)
  if (!answer?.change) {
    await closeComplaint(db, scope, complaint.id, begun)
    return 'noChange'
  }
  const { axis, to, deg } = answer.change
  const shown = { axis, ...(to !== undefined && { to }), ...(axis === 'tilt' && { deg }) }
  const id = `history-trial-${t}`
  const asked = { id, memberId: rider.id, complaintId: complaint.id, shown, weeks: 2, reason: null } as const
  const { outcome } = await startTrial(db, scope, { ...asked, ratingBefore: 6 }, begun)
  if (outcome !== 'kept') return 'noChange'
  for (const [r, rating] of ratings.entries())
    await rateTrial(
      db,
      scope,
      { id: `${id}-rating-${r}`, trialId: id, rating },
      new Date(begun.getTime() + (r + 1) * 2.5 * DAY_MS),
    )
  if (state === 'keep' || state === 'undo' || state === 'next') {
    const ended = new Date(begun.getTime() + 15 * DAY_MS)
    await endTrial(db, scope, { id, outcome: state }, ended)
    if (state === 'keep') await closeComplaint(db, scope, complaint.id, ended)
  }
  return 'begun'
}
