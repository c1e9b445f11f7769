import { CLOSINGS, PEDAL_SIDES, STOPS, TYPE_FILE_FORMAT } from '../bike/sheet'
import { AXES } from '../conventions'
import { START_LANDMARKS } from '../school/school'

/**
 * JSON Schemas (draft-07) of the wire format. Field names are fixed; the TypeScript types of the core say the same,
 * and `operations.test.ts` holds the two together. Validators are compiled ahead of time (`npm run schemas`), because
 * a content security policy forbids compiling them in the page.
 */
const number = { type: 'number' } as const
const positive = { type: 'number', exclusiveMinimum: 0, maximum: 3000 } as const
const lengthMm = { type: 'number', minimum: -5000, maximum: 5000 } as const
const label = { type: 'string', minLength: 1, maxLength: 20 } as const

const object = <P extends Record<string, object>>(properties: P, optional: readonly string[] = []) =>
  ({
    type: 'object',
    properties,
    required: Object.keys(properties).filter((k) => !optional.includes(k)),
    additionalProperties: false,
  }) as const

const point = object({ xMm: lengthMm, yMm: lengthMm })
const printedMarks = object({
  marks: { type: 'array', minItems: 1, maxItems: 200, items: object({ label, mm: lengthMm }) },
  halfMarks: { type: 'boolean' },
})
const ruler = object({
  ruler: object({
    min: { type: 'number', minimum: -1000, maximum: 1000 },
    max: { type: 'number', minimum: -1000, maximum: 1000 },
    resolution: { type: 'number', exclusiveMinimum: 0, maximum: 1000 },
    mmPerUnit: { type: 'number', minimum: -1000, maximum: 1000 },
    mmAtZero: lengthMm,
  }),
})
const scale = { type: 'object', if: { required: ['ruler'] }, then: ruler, else: printedMarks } as const
const axis = object({ directionDeg: { type: 'number', minimum: -360, maximum: 360 }, scale })
const bikeType = object({
  name: { type: 'string', minLength: 1, maxLength: 80 },
  crankMm: { type: 'number', minimum: 50, maximum: 300 },
  pedalSurfaceMm: { type: 'number', minimum: -50, maximum: 100 },
  axleHeightMm: { type: 'number', minimum: 50, maximum: 1000 },
  saddle: object({
    noseAheadMm: { type: 'number', minimum: 0, maximum: 400 },
    lengthMm: positive,
    shape: { enum: ['flat', 'tailKick', 'curved'] },
  }),
  seatOrigin: { $ref: 'point' },
  gripOrigin: { $ref: 'point' },
  axes: object(
    {
      seatHeight: { $ref: 'axis' },
      seatSlide: { $ref: 'axis' },
      barHeight: { $ref: 'axis' },
      barSlide: { $ref: 'axis' },
    },
    ['barSlide'],
  ),
  forearmGaugeValid: { type: 'boolean' },
})
const closing = { enum: CLOSINGS } as const
const sheet = object({
  closing: object({ seatHeight: closing, seatSlide: closing, barHeight: closing, barSlide: closing }, AXES),
  pedalSides: { type: 'array', minItems: 1, maxItems: 2, uniqueItems: true, items: { enum: PEDAL_SIDES } },
  pedalSpacingMm: { type: 'number', minimum: 100, maximum: 400 },
  stop: { enum: STOPS },
  landmarks: { type: 'array', maxItems: 8, uniqueItems: true, items: { enum: START_LANDMARKS } },
})
const perAxis = <S extends object>(schema: S) => {
  const each = { seatHeight: schema, seatSlide: schema, barHeight: schema, barSlide: schema }
  return object(each, Object.keys(each))
}
const marks = perAxis(label)
const bike = object(
  {
    offsetsMm: perAxis({ type: 'number', minimum: -300, maximum: 300 }),
    sdMm: perAxis({ type: 'number', minimum: 0, maximum: 100 }),
    tiltDeg: { type: 'number', minimum: -45, maximum: 45 },
  },
  ['offsetsMm', 'sdMm', 'tiltDeg'],
)
const school = {
  ...object({
    order: { enum: ['saddleFirst', 'heightsFirst'] },
    kneeWindowDeg: { type: 'array', items: { type: 'number', minimum: 0, maximum: 90 }, minItems: 2, maxItems: 2 },
    foot: { enum: ['natural', 'level'] },
    heelCheck: { enum: ['evidence', 'target', 'ceiling', 'unused'] },
    foreAft: { enum: ['plumb', 'midFoot', 'balance'] },
    startLandmark: { enum: START_LANDMARKS },
    bars: { enum: ['byExperience', 'neverBelow', 'above', 'riderChooses'] },
    tilt: { enum: ['byShape', 'level', 'relief'] },
  }),
  required: [],
} as const

const PRIOR_PARTS = [
  'statureMm',
  'legFactor',
  'thighShareFactor',
  'ankleHeightFactor',
  'ankleToBallFactor',
  'trochanterAboveInseamFactor',
  'crestAboveTrochanterFactor',
  'frontBoneAboveTrochanterFactor',
  'trunkFactor',
  'armFactor',
  'pressMm',
  'patellaAheadMm',
  'bottomPitchDeg',
  'forwardPitchDeg',
] as const
const prior = {
  type: 'object',
  properties: Object.fromEntries(
    PRIOR_PARTS.map((part) => [part, object({ mean: number, sd: { type: 'number', minimum: 0 } })]),
  ),
  additionalProperties: false,
} as const

/** One schema per kind of evidence, without the fields all share. */
const KINDS = {
  stature: { mm: { type: 'number', minimum: 1000, maximum: 2500 } },
  inseam: { mm: { type: 'number', minimum: 400, maximum: 1300 }, shod: { type: 'boolean' } },
  landmarkHeight: {
    landmark: { enum: ['hipCrest', 'frontHipBone', 'between', 'trochanter'] },
    mm: { type: 'number', minimum: 450, maximum: 1600 },
    shod: { type: 'boolean' },
  },
  landmarkAtMark: { landmark: { enum: ['hipCrest', 'frontHipBone', 'between', 'trochanter'] } },
  set: {},
  kneeAngle: { deg: { type: 'number', minimum: -20, maximum: 150 }, by: { enum: ['goniometer', 'photo', 'gauge'] } },
  kneeByEye: { seen: { enum: ['locked', 'slightBend', 'deepBend'] } },
  heelCheck: { seen: { enum: ['justStraight', 'stillBent', 'cannotReach'] } },
  plumb: { mm: { type: 'number', minimum: -400, maximum: 400 }, from: { enum: ['front', 'middle'] } },
  rider: {
    experience: { enum: ['new', 'regular', 'experienced'] },
    backSore: { type: 'boolean' },
    pregnant: { type: 'boolean' },
    soleMm: { type: 'number', minimum: 0, maximum: 80 },
    pedal: { enum: ['cage', 'cleat'] },
  },
} as const
const OPTIONAL: Record<string, readonly string[]> = {
  plumb: ['from'],
  rider: ['backSore', 'pregnant', 'soleMm', 'pedal'],
}

/** Schema of one kind of evidence, by name; also used at the door of the database. */
export const evidenceSchemas = Object.fromEntries(
  Object.entries(KINDS).map(([kind, fields]) => [
    kind,
    object({ kind: { const: kind }, at: { $ref: 'marks' }, side: { enum: ['left', 'right'] }, ...fields }, [
      'at',
      'side',
      ...(OPTIONAL[kind] ?? []),
    ]),
  ]),
)
export const EVIDENCE_KINDS = Object.keys(KINDS)

const ref = (name: string) => ({ $ref: name }) as const

const evidence = {
  type: 'object',
  required: ['kind'],
  properties: { kind: { enum: EVIDENCE_KINDS } },
  allOf: EVIDENCE_KINDS.map((kind) => ({
    if: { properties: { kind: { const: kind } }, required: ['kind'] },
    then: { $ref: kind },
  })),
} as const

const footPitch = {
  if: { type: 'object' },
  then: object({
    top: { type: 'number', minimum: -90, maximum: 90 },
    forward: { type: 'number', minimum: -90, maximum: 90 },
    bottom: { type: 'number', minimum: -90, maximum: 90 },
  }),
  else: { type: 'number', minimum: -90, maximum: 90 },
} as const
const rider = object({
  thighMm: positive,
  shankMm: positive,
  ankleHeightMm: { type: 'number', minimum: 0, maximum: 500 },
  ankleToBallMm: { type: 'number', minimum: 0, maximum: 500 },
  soleMm: { type: 'number', minimum: 0, maximum: 200 },
  hipAboveSeatMm: { type: 'number', minimum: -500, maximum: 500 },
  patellaAheadMm: { type: 'number', minimum: -200, maximum: 200 },
  footPitchDeg: footPitch,
  trunkMm: positive,
  upperArmMm: positive,
  forearmToGripMm: positive,
  elbowFlexionDeg: { type: 'number', minimum: 0, maximum: 170 },
})

/** A number off the tape, mm; a saddle or a bar below the axle cannot be. */
const tape = (minimum: number, maximum: number) => ({ type: 'number', minimum, maximum }) as const

const requests = {
  place: object({ bikeType: ref('bikeType'), bike: ref('bike'), marks: ref('marks') }, ['bike']),
  pose: object({
    rider,
    contact: object({ seat: ref('point'), grip: ref('point') }),
    crankMm: { type: 'number', minimum: 0, maximum: 400 },
    pedalSurfaceMm: { type: 'number', minimum: -100, maximum: 200 },
    crankDeg: { type: 'array', maxItems: 3600, items: number },
  }),
  calibrate: object({
    bikeType: ref('bikeType'),
    readings: {
      type: 'array',
      maxItems: 60,
      items: object({
        marks: ref('marks'),
        lengths: object(
          {
            saddleHeightMm: tape(1, 3000),
            setbackMm: tape(-1000, 2000),
            reachMm: tape(1, 3000),
            stackMm: tape(1, 3000),
          },
          ['saddleHeightMm', 'setbackMm', 'reachMm', 'stackMm'],
        ),
      }),
    },
  }),
  recommend: object(
    {
      bikeType: ref('bikeType'),
      bike: ref('bike'),
      school,
      evidence: { type: 'array', maxItems: 500, items: ref('evidence') },
      seed: { type: 'integer', minimum: -2147483648, maximum: 2147483647 },
      samples: { type: 'integer', minimum: 200, maximum: 50000 },
      prior,
      lengths: { enum: ['metric', 'feet'] },
    },
    ['bike', 'school', 'seed', 'samples', 'prior', 'lengths'],
  ),
} as const

/** File format of bike types: what `Bikes` exports and imports; published in `docs/schemas/`. */
const typeFile = object({
  format: { const: TYPE_FILE_FORMAT },
  formatVersion: { const: 1 },
  types: { type: 'array', minItems: 1, maxItems: 100, items: object({ bikeType: ref('bikeType'), sheet }) },
})

/** Every schema by name: the operations' requests and the parts they refer to. */
export const schemas: Readonly<Record<string, object>> = {
  ...requests,
  ...evidenceSchemas,
  typeFile,
  point,
  axis,
  marks,
  bike,
  bikeType,
  evidence,
}
