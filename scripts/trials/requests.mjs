/**
 * Seeded requests of one operation of the core, one a line, for comparing two versions of the house byte by byte:
 *
 *   node scripts/trials/requests.mjs recommend > requests.ndjson
 *   npm run --silent fit -- recommend --lines < requests.ndjson > answers.ndjson
 *
 * Four in five are ordinary requests; the others have one thing wrong (a field missing, of the wrong type, out of
 * range, unknown, or a mark the bike does not have), so that the refusals are compared too.
 */
import { uniformFloat64 } from 'pure-rand/distribution/uniformFloat64'
import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus'

const [operation = 'recommend', count = '200', seed = '7'] = process.argv.slice(2)
const generator = xoroshiro128plus(Number(seed))
for (let i = 0; i < 64; i++) uniformFloat64(generator)
const chance = () => uniformFloat64(generator)
const between = (low, high) => Math.round(10 * (low + (high - low) * chance())) / 10
const oneOf = (items) => items[Math.floor(chance() * items.length)]
const maybe = (share, value) => (chance() < share ? value() : {})

function scaleOf(labels, stepMm, halfMarks) {
  return { marks: labels.map((label, i) => ({ label, mm: stepMm * i })), halfMarks }
}
const numbers = (n) => Array.from({ length: n }, (_, i) => String(i + 1))
const ruler = (min, max, resolution, mmPerUnit) => ({ ruler: { min, max, resolution, mmPerUnit, mmAtZero: 0 } })

function bikeType() {
  const barSlide = { directionDeg: 0, scale: ruler(-4, 4, 0.5, 10) }
  return {
    name: oneOf(['Testwort', 'Rushmoss']),
    crankMm: oneOf([165, 170, 172.5]),
    pedalSurfaceMm: 14,
    axleHeightMm: between(280, 320),
    saddle: { noseAheadMm: 150, lengthMm: 275, shape: oneOf(['flat', 'tailKick', 'curved']) },
    seatOrigin: { xMm: between(-170, -140), yMm: between(520, 560) },
    gripOrigin: { xMm: between(380, 420), yMm: between(560, 620) },
    axes: {
      seatHeight: {
        directionDeg: oneOf([105, 107]),
        scale: oneOf([
          scaleOf(numbers(15), 20, false),
          scaleOf(numbers(12), 24, true),
          scaleOf([...'ABCDEFGHJKLMNOPQ'], 12.7, false),
          ruler(0, 30, 0.5, 10),
        ]),
      },
      seatSlide: {
        directionDeg: 0,
        scale: oneOf([ruler(-3, 3, 0.5, 10), { ...scaleOf([...'ABCDEFG'], 10, false) }]),
      },
      barHeight: { directionDeg: oneOf([90, 100]), scale: scaleOf(numbers(12), 20, false) },
      ...maybe(0.7, () => ({ barSlide })),
    },
    forearmGaugeValid: chance() < 0.6,
  }
}

function labels({ scale }) {
  if (scale.marks) return scale.marks.map((mark) => mark.label)
  const { min, max, resolution } = scale.ruler
  return Array.from({ length: Math.round((max - min) / resolution) + 1 }, (_, i) => String(min + i * resolution))
}
const marksOf = (type, axes = Object.keys(type.axes)) =>
  Object.fromEntries(axes.map((axis) => [axis, oneOf(labels(type.axes[axis]))]))
const machine = (type) => ({
  offsetsMm: Object.fromEntries(Object.keys(type.axes).map((axis) => [axis, between(-8, 8)])),
  sdMm: Object.fromEntries(Object.keys(type.axes).map((axis) => [axis, between(0, 4)])),
  tiltDeg: between(-5, 2),
})
const school = () => ({
  ...maybe(0.3, () => ({ order: oneOf(['saddleFirst', 'heightsFirst']) })),
  ...maybe(0.3, () => ({
    kneeWindowDeg: oneOf([
      [25, 35],
      [30, 35],
      [22, 40],
    ]),
  })),
  ...maybe(0.3, () => ({ foot: oneOf(['natural', 'level']) })),
  ...maybe(0.5, () => ({ heelCheck: oneOf(['evidence', 'target', 'ceiling', 'unused']) })),
  ...maybe(0.3, () => ({ foreAft: oneOf(['plumb', 'midFoot', 'balance']) })),
  ...maybe(0.5, () => ({ bars: oneOf(['byExperience', 'neverBelow', 'above', 'riderChooses']) })),
})

const SADDLE_ROWS = [
  (at) => ({ kind: 'kneeAngle', deg: between(8, 60), by: oneOf(['goniometer', 'photo', 'gauge']), at, ...side() }),
  (at) => ({ kind: 'kneeByEye', seen: oneOf(['locked', 'slightBend', 'deepBend']), at, ...side() }),
  (at) => ({ kind: 'heelCheck', seen: oneOf(['justStraight', 'stillBent', 'cannotReach']), at }),
  (at) => ({ kind: 'plumb', mm: between(-40, 50), ...maybe(0.5, () => ({ from: oneOf(['front', 'middle']) })), at }),
]
const side = () => maybe(0.3, () => ({ side: oneOf(['left', 'right']) }))
const landmark = () => oneOf(['hipCrest', 'frontHipBone', 'between', 'trochanter'])
const BODY_ROWS = [
  () => ({ kind: 'stature', mm: between(1500, 1950) }),
  () => ({ kind: 'inseam', mm: between(680, 900), shod: chance() < 0.5 }),
  () => ({ kind: 'landmarkHeight', landmark: landmark(), mm: between(850, 1150), shod: chance() < 0.5 }),
  (type) => ({ kind: 'landmarkAtMark', landmark: landmark(), at: marksOf(type, ['seatHeight']) }),
  (type) => ({ kind: 'set', at: marksOf(type) }),
  () => ({
    kind: 'rider',
    experience: oneOf(['new', 'regular', 'experienced']),
    ...maybe(0.3, () => ({ backSore: true })),
    ...maybe(0.1, () => ({ pregnant: true })),
    ...maybe(0.4, () => ({ soleMm: between(4, 30) })),
  }),
]

function evidence(type) {
  const rows = Array.from({ length: Math.floor(4 * chance()) }, () => oneOf(BODY_ROWS)(type))
  const at = marksOf(type, ['seatHeight', 'seatSlide'])
  const checks = Array.from({ length: Math.floor(5 * chance()) }, () =>
    oneOf(SADDLE_ROWS)(chance() < 0.6 ? at : marksOf(type, ['seatHeight', 'seatSlide'])),
  )
  return [...rows, ...checks]
}

/** The four lengths of a type at its marks, each a little off, as a tape would read them; now and then a blunder. */
function tapeAt(type, marks) {
  const along = (origin, axes) =>
    axes.reduce(({ xMm, yMm }, name) => {
      const axis = type.axes[name]
      if (!axis) return { xMm, yMm }
      const { ruler, marks: printed } = axis.scale
      const mm = ruler ? Number(marks[name]) * ruler.mmPerUnit : printed.find((m) => m.label === marks[name]).mm
      const angle = (axis.directionDeg * Math.PI) / 180
      return { xMm: xMm + mm * Math.cos(angle), yMm: yMm + mm * Math.sin(angle) }
    }, origin)
  const seat = along(type.seatOrigin, ['seatHeight', 'seatSlide'])
  const grip = along(type.gripOrigin, ['barHeight', 'barSlide'])
  const read = (mm) => Math.round(10 * mm + between(-20, 20)) / 10 + (chance() < 0.02 ? 100 : 0)
  return {
    saddleHeightMm: read(Math.hypot(seat.xMm, seat.yMm)),
    setbackMm: read(-seat.xMm - type.saddle.noseAheadMm),
    reachMm: read(grip.xMm - seat.xMm),
    stackMm: read(grip.yMm),
  }
}

const rider = () => ({
  thighMm: between(360, 460),
  shankMm: between(360, 460),
  ankleHeightMm: 66,
  ankleToBallMm: 121,
  soleMm: between(5, 20),
  hipAboveSeatMm: between(40, 75),
  patellaAheadMm: 50,
  footPitchDeg: chance() < 0.5 ? between(0, 25) : { top: 15, forward: between(0, 10), bottom: between(5, 25) },
  trunkMm: between(440, 540),
  upperArmMm: between(280, 340),
  forearmToGripMm: between(300, 370),
  elbowFlexionDeg: between(5, 40),
})

const REQUESTS = {
  place: () => {
    const type = bikeType()
    return { bikeType: type, ...maybe(0.5, () => ({ bike: machine(type) })), marks: marksOf(type) }
  },
  pose: () => ({
    rider: rider(),
    contact: {
      seat: { xMm: between(-260, -180), yMm: between(560, 760) },
      grip: { xMm: between(380, 520), yMm: between(600, 820) },
    },
    crankMm: 170,
    pedalSurfaceMm: 14,
    crankDeg: [0, 90, 163, 180, between(0, 360)],
  }),
  calibrate: () => {
    const type = bikeType()
    return {
      bikeType: type,
      readings: Array.from({ length: Math.floor(1 + 9 * chance()) }, () => {
        const marks = marksOf(type)
        return { marks, lengths: tapeAt(type, marks) }
      }),
    }
  },
  recommend: () => {
    const type = bikeType()
    return {
      bikeType: type,
      ...maybe(0.5, () => ({ bike: machine(type) })),
      school: school(),
      evidence: evidence(type),
      seed: Math.floor(1000 * chance()),
      samples: oneOf([300, 500, 1000]),
      ...maybe(0.3, () => ({ lengths: 'imperial' })),
    }
  },
}

/** Every place of a value, as the object or list that contains it and the key there. */
function placesOf(value) {
  if (typeof value !== 'object' || value === null) return []
  return Object.keys(value).flatMap((key) => [[value, key], ...placesOf(value[key])])
}

const WRONG = [
  (parent, key) => (Array.isArray(parent) ? parent.splice(Number(key), 1) : delete parent[key]),
  (parent, key) => (parent[key] = typeof parent[key] === 'number' ? String(parent[key]) : 12),
  (parent, key) => (parent[key] = typeof parent[key] === 'number' ? parent[key] * 1e6 : null),
  (parent) => (Array.isArray(parent) ? parent.push('stray') : (parent.stray = true)),
  (parent, key) => (parent[key] = typeof parent[key] === 'string' ? 'Z9' : parent[key]),
]

for (let i = 0; i < Number(count); i++) {
  const request = REQUESTS[operation]()
  if (i % 5 === 4) oneOf(WRONG)(...oneOf(placesOf(request)))
  console.log(JSON.stringify(request))
}
