import type { Bike } from '../core/bikes/bike/bike'
import type { PlainType } from '../core/bikes/bike/standing'
import type { InspectionItem } from '../core/bikes/bike/inspection'
import { DEFAULT_EQUIPMENT, type BikeEquipment } from '../core/bikes/bike/equipment'
import type { TypeCalibration } from '../core/bikes/calibration/calibrate'
import type { Block } from '../core/classes/plan/blocks'
import type { RoomPlan, FloorPosition } from '../core/classes/planning/roomPlan'
import type { Role } from '../server/platform/db/roles'
import people from './people.json'

/** Netloft Hall, a community sports hall in Tarn Ferry. All invented. */
export const STUDIO = { id: 'netloft-hall', name: 'Netloft Hall', place: 'Tarn Ferry', timeZone: 'Europe/Oslo' }

type Person = Readonly<{ id: string; name: string; username: string; password: string; role: Role }>
/** One of each role. Passwords of the demo, spoken freely: these accounts exist only in demo data. */
export const PEOPLE = people as readonly Person[]
/** Who set riders up and wrote notes in the demo data. */
export const INSTRUCTORS = PEOPLE.filter(({ role }) => role !== 'desk')

const numbered = (count: number, spacingMm: number, fromMm = 0) =>
  Array.from({ length: count }, (_, i) => ({ label: String(i + 1), mm: fromMm + i * spacingMm }))
const lettered = (letters: string, spacingMm: number, fromMm = 0) =>
  [...letters].map((label, i) => ({ label, mm: fromMm + i * spacingMm }))
const zeroRuler = (reach: number, resolution = 0.5) => ({
  ruler: { min: -reach, max: reach, resolution, mmPerUnit: 10, mmAtZero: 0 },
})

/** Numbered holes 20 mm apart, lettered slide. */
const sorrel: PlainType = {
  name: 'Sorrel',
  crankMm: 170,
  pedalSurfaceMm: 14,
  axleHeightMm: 298,
  saddle: { noseAheadMm: 152, lengthMm: 272, shape: 'flat' },
  seatOrigin: { xMm: -163, yMm: 534 },
  gripOrigin: { xMm: 392, yMm: 598 },
  axes: {
    seatHeight: { directionDeg: 107, scale: { marks: numbered(15, 20), halfMarks: false } },
    seatSlide: { directionDeg: 0, scale: { marks: lettered('ABCDEFGH', 10, -30), halfMarks: false } },
    barHeight: { directionDeg: 98, scale: { marks: numbered(11, 20), halfMarks: false } },
    barSlide: { directionDeg: 0, scale: { marks: numbered(6, 15, -30), halfMarks: false } },
  },
  forearmGaugeValid: true,
}

/** Centimetre rulers around a zero line; the saddle's larger numbers lie farther back. */
const meadowsweet: PlainType = {
  name: 'Meadowsweet',
  crankMm: 172.5,
  pedalSurfaceMm: 16,
  axleHeightMm: 310,
  saddle: { noseAheadMm: 146, lengthMm: 262, shape: 'tailKick' },
  seatOrigin: { xMm: -200, yMm: 668 },
  gripOrigin: { xMm: 380, yMm: 706 },
  axes: {
    seatHeight: { directionDeg: 106, scale: zeroRuler(14) },
    seatSlide: { directionDeg: 0, scale: { ruler: { min: -3, max: 3, resolution: 0.5, mmPerUnit: -10, mmAtZero: 0 } } },
    barHeight: { directionDeg: 90, scale: zeroRuler(10) },
    barSlide: { directionDeg: 0, scale: zeroRuler(4) },
  },
  forearmGaugeValid: true,
}

/** Lettered post 12.7 mm apart (I and O left out), a bar post that leans forward, no bar slide. */
const bracken: PlainType = {
  name: 'Bracken',
  crankMm: 170,
  pedalSurfaceMm: 13,
  axleHeightMm: 305,
  saddle: { noseAheadMm: 155, lengthMm: 280, shape: 'curved' },
  seatOrigin: { xMm: -170, yMm: 575 },
  gripOrigin: { xMm: 396, yMm: 622 },
  axes: {
    seatHeight: { directionDeg: 107, scale: { marks: lettered('ABCDEFGHJKLMNPQRSTUV', 12.7), halfMarks: false } },
    seatSlide: { directionDeg: 0, scale: { marks: numbered(5, 12, -24), halfMarks: true } },
    barHeight: { directionDeg: 72, scale: { marks: numbered(9, 22), halfMarks: false } },
  },
  forearmGaugeValid: false,
}

export const TYPES = { sorrel, meadowsweet, bracken }

export const EQUIPMENT: Readonly<Record<keyof typeof TYPES, BikeEquipment>> = {
  sorrel: DEFAULT_EQUIPMENT,
  meadowsweet: {
    ...DEFAULT_EQUIPMENT,
    closing: { seatHeight: 'lever', seatSlide: 'lever', barHeight: 'lever', barSlide: 'lever' },
    stop: 'lever',
    pedalSpacingMm: 172,
  },
  bracken: {
    ...DEFAULT_EQUIPMENT,
    closing: { seatHeight: 'pin', seatSlide: 'knob', barHeight: 'pin' },
    pedalSides: ['cage'],
    pedalSpacingMm: 180,
    landmarks: ['hipCrest', 'between'],
  },
}

/** A tape was laid on every type once: what it left to doubt. */
export const CALIBRATION: TypeCalibration = {
  rmsMm: 1.4,
  readings: 9,
  sdMm: { seatHeight: 1.2, seatSlide: 1, barHeight: 1.1 },
  expectedErrorMm: { saddleHeightMm: 1.6, setbackMm: 1.3, reachMm: 1.9, stackMm: 1.4 },
}

type DemoBike = Readonly<{
  number: number
  type: keyof typeof TYPES
  machineCalibration: Bike
  floorDeg: number
  lookedDaysAgo: number | null
  fault?: Readonly<{ item: InspectionItem; note: string }>
}>

/** Tilts that suit the saddle of each type, degrees. */
const USUAL_TILT_DEG = { sorrel: -1, meadowsweet: -3, bracken: -0.8 } as const
const SURE = { seatHeight: 2, seatSlide: 2 }
const ROWS: readonly [type: keyof typeof TYPES, numbers: readonly number[]][] = [
  ['sorrel', [1, 2, 7, 8, 9, 10, 11, 12]],
  ['meadowsweet', [3, 4, 13, 14, 15, 16, 17, 18]],
  ['bracken', [5, 6, 19, 20, 21, 22, 23, 24]],
]
const OFFSETS: Readonly<Record<number, Bike['offsetsMm']>> = {
  2: { seatHeight: -4 },
  4: { seatSlide: 3 },
  11: { seatHeight: 5, barHeight: -3 },
  17: { seatSlide: -6 },
  22: { seatHeight: -7 },
}
/** Machines whose saddle has gone off, degrees from what suits it. */
const TILTED: Readonly<Record<number, number>> = { 9: 3.2, 16: -2.4, 23: 1.6 }
const FAULTS: Readonly<Record<number, DemoBike['fault']>> = {
  14: { item: 'bars', note: 'lever closes, but the bars still roll' },
  20: { item: 'pedals', note: 'left strap torn' },
}

export const BIKES: readonly DemoBike[] = ROWS.flatMap(([type, numbers]) =>
  numbers.map((number) => ({
    number,
    type,
    machineCalibration: {
      offsetsMm: OFFSETS[number] ?? {},
      sdMm: SURE,
      tiltDeg: Number((USUAL_TILT_DEG[type] + (TILTED[number] ?? ((number * 7) % 5) / 10)).toFixed(1)),
    },
    floorDeg: ((number * 3) % 4) / 10,
    lookedDaysAgo: number === 24 ? null : (number * 5) % 19,
    fault: FAULTS[number],
  })),
).sort((a, b) => a.number - b.number)

/** Invented members with their stature, mm, and age; the first ones have been set up before. */
export const MEMBERS: {
  name: string
  statureMm: number
  age: number
  experience: 'new' | 'regular' | 'experienced'
}[] = [
  { name: 'Maren Tolle', statureMm: 1688, age: 41, experience: 'regular' },
  { name: 'Oswin Pryde', statureMm: 1812, age: 58, experience: 'new' },
  { name: 'Tove Kestrand', statureMm: 1594, age: 33, experience: 'experienced' },
  { name: 'Lorcan Abery', statureMm: 1874, age: 27, experience: 'regular' },
  { name: 'Pilar Venn', statureMm: 1651, age: 64, experience: 'regular' },
  { name: 'Hedda Mos', statureMm: 1730, age: 49, experience: 'new' },
  { name: 'Cassius Rell', statureMm: 1766, age: 36, experience: 'experienced' },
  { name: 'Ysolde Farrant', statureMm: 1540, age: 71, experience: 'new' },
  { name: 'Anders Quill', statureMm: 1901, age: 45, experience: 'regular' },
  { name: 'Bettany Crewe', statureMm: 1623, age: 29, experience: 'new' },
  { name: 'Dagny Ulrow', statureMm: 1702, age: 52, experience: 'regular' },
  { name: 'Edmer Vossey', statureMm: 1795, age: 61, experience: 'new' },
  { name: 'Fenella Ostrom-Whitlocke', statureMm: 1668, age: 38, experience: 'regular' },
  { name: 'Gideon Larch', statureMm: 1843, age: 23, experience: 'new' },
  { name: 'Halvard Snee', statureMm: 1751, age: 67, experience: 'regular' },
  { name: 'Imke Dunmore', statureMm: 1577, age: 55, experience: 'new' },
  { name: 'Jory Penhale', statureMm: 1719, age: 31, experience: 'experienced' },
  { name: 'Katla Brandt-Eide', statureMm: 1645, age: 44, experience: 'regular' },
  { name: 'Leopold Musgrave', statureMm: 1828, age: 73, experience: 'new' },
  { name: 'Mirela Stoica-Hale', statureMm: 1606, age: 26, experience: 'new' },
  { name: 'Nuala Fenwright', statureMm: 1697, age: 35, experience: 'regular' },
  { name: 'Odalys Merrin', statureMm: 1559, age: 47, experience: 'new' },
  { name: 'Perrin Hask', statureMm: 1780, age: 39, experience: 'regular' },
  { name: 'Quentin Aldous Marlowe-Thornbury', statureMm: 1859, age: 50, experience: 'new' },
  { name: 'Runa Sollie', statureMm: 1634, age: 19, experience: 'new' },
  { name: 'Silas Thackway', statureMm: 1744, age: 69, experience: 'regular' },
  { name: 'Thea Lindqvist-Moor', statureMm: 1712, age: 42, experience: 'new' },
  { name: 'Ulrik Vane', statureMm: 1938, age: 34, experience: 'experienced' },
  { name: 'Wilhelmina Oke', statureMm: 1498, age: 62, experience: 'new' },
  { name: 'Zdenka Marsh', statureMm: 1676, age: 30, experience: 'new' },
]

/** The one room: four rows before the instructor's wall, a screen above it. */
export const ROOM: Readonly<{ id: string; name: string; plan: RoomPlan }> = {
  id: 'net-loft',
  name: 'Net loft',
  plan: {
    widthM: 11,
    depthM: 9,
    instructor: { xM: 5.5, yM: 0.9 },
    screens: [{ xM: 5.5, yM: 0.2 }],
    doors: [{ xM: 10.8, yM: 8.4 }],
    fans: [
      { xM: 0.3, yM: 4.6 },
      { xM: 10.7, yM: 4.6 },
    ],
  },
}
/** Six bikes a row, the outer ones turned in a little. */
export const PLACES: readonly (FloorPosition & Readonly<{ number: number }>)[] = BIKES.map(({ number }, i) => {
  const [row, column] = [Math.floor(i / 6), i % 6]
  const shift = row % 2 === 0 ? 0 : 0.25
  return {
    number,
    xM: 1.5 + 1.55 * column + shift,
    yM: 3 + 1.65 * row,
    headingDeg: [20, 10, 5, -5, -10, -20][column],
  }
})

/** A class of three quarters of an hour. */
export const BLOCKS: readonly Block[] = (
  [
    ['Wake the legs', 6, 80, 'seated', 1, 'easy'],
    ['Flat road', 7, 90, 'seated', 2, 'steady'],
    ['First climb', 5, 68, 'seated', 2, 'hard', 'climbSeated'],
    ['Let go', 2, 85, 'seated', 1, 'recovery', 'sitUp'],
    ['Up for eight', 5, 76, 'standing', 2, 'steady', 'standAndSit'],
    ['Fast legs', 4, 104, 'seated', 2, 'hard', 'fastLegs'],
    ['Let go', 3, 85, 'seated', 1, 'recovery', 'sitUp'],
    ['Long climb', 6, 64, 'standing', 3, 'hard', 'climbStanding'],
    ['Home', 7, 82, 'seated', 1, 'easy'],
  ] as const
).map(([name, minutes, rpm, posture, hands, effort, move], i) => ({
  id: `block-${i + 1}`,
  name,
  minutes,
  rpm,
  posture,
  hands,
  effort,
  spine: 'long',
  ...(move && { move }),
}))

type DemoClass = Readonly<{
  id: string
  title: string
  /** Days from today and the time on the studio's clock; null: the next quarter of an hour from in twenty minutes. */
  at: readonly [days: number, time: string] | null
  minutes: number
  /** Members by their place in `MEMBERS`, and how many minutes before the start they come. */
  riders: readonly (readonly [member: number, comes: number])[]
}>
const coming = (members: readonly number[]): DemoClass['riders'] =>
  members.map((member, i) => [member, [18, 12, 10, 15, 8, 14, 6, 11][i % 8]])

export const CLASSES: readonly DemoClass[] = [
  { id: 'class-dawn-15', title: 'Dawn Ride', at: [-15, '07:00'], minutes: 45, riders: coming([0, 2, 4, 6]) },
  { id: 'class-dawn-8', title: 'Dawn Ride', at: [-8, '07:00'], minutes: 45, riders: coming([0, 1, 3, 4, 8]) },
  { id: 'class-dawn', title: 'Dawn Ride', at: [-1, '07:00'], minutes: 45, riders: coming([0, 1, 2, 3, 4, 6, 8]) },
  {
    id: 'class-dusk',
    title: 'Dusk Ride',
    at: null,
    minutes: 45,
    riders: coming([0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12, 13, 14, 16, 17]),
  },
  { id: 'class-dawn-2', title: 'Dawn Ride', at: [1, '07:00'], minutes: 45, riders: coming([0, 2, 4, 8, 10, 20]) },
  { id: 'class-noon', title: 'Noon Spin', at: [1, '12:15'], minutes: 30, riders: coming([3, 6, 12]) },
  { id: 'class-first', title: 'First Turns', at: [2, '18:00'], minutes: 45, riders: coming([13, 15, 18, 19, 21, 24]) },
  { id: 'class-long', title: 'Long Ride', at: [4, '09:30'], minutes: 75, riders: coming([2, 6, 16, 27]) },
]
