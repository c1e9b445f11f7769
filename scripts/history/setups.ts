import { axesOf, axisOf, type BikeType } from '../../core/bikes/bike/bike'
import type { Marks } from '../../core/base/conventions'
import type { Evidence } from '../../core/riders/evidence/registry'
import { positionsOf } from '../../core/bikes/scale/scale'
import {
  crestAtMark,
  goniometer,
  kneeByEye,
  plumbLine,
  trueFlexionDeg,
  truePlumbMm,
  type SimulatedRider,
} from '../../core/simulated/simulatedRider'
import type { StudioBike } from '../../server/bikes/bikes'
import { appendEvidence, finishSetup } from '../../server/setups/evidence'
import { startSetup } from '../../server/setups/setups'
import { TYPES } from '../netloftHall'
import { bodyOn, daysBefore, LOW_BIKE, WITHOUT_NUMBERS, type Hall, type Rider } from './hall'

/** How an eye strays that reads knees for years without an instrument beside it; ours. */
const EYE = { biasDeg: 3, sdDeg: 4 }

/** Knee bends an instrument is laid at, degrees; ours. */
const READABLE_DEG = [8, 70] as const

/** A first set-up for most members, a second one for some, and one on the low machine for every third Sorrel rider. */
export async function addSetups(hall: Hall): Promise<void> {
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
    // Nobody lays an instrument at a leg that hardly reaches, or is folded up: the saddle is moved first.
    if (measures && read.deg >= READABLE_DEG[0] && read.deg <= READABLE_DEG[1])
      evidence.push(
        { ...read, deg: Math.round(read.deg) },
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
