import type { Observer } from '../../../core/riders/evidence/definition/defineKind'
import { kneeEyeError, observerFrom, plumbEyeError } from '../../../core/setups/learning/observerFromPairs'
import { MEASUREMENT_SD } from '../../../core/base/measurementNoise'
import { createRng } from '../../../core/base/rng'
import * as simulated from '../../../core/simulated/simulatedRider'
import { POPULATIONS, type SimulatedEye } from '../../../core/simulated/simulatedRider'
import { bikeWith, mean, percent, ridersOf, SCALES, SEEDS, share } from './inputs'
import { recommendedHeight } from './learning'
import { crest, follow, type Looks } from './walks'

/** The table of an eye 5° off, with and without its estimate, beside a true one. */
export const eyes = (): string[] => [
  '',
  '## An eye 5° off, after 20 pairs: dismounts by eye (knee right)',
  '',
  '| seed | true eye | 5° off, unknown | 5° off, known | known against true | learned |',
  '|---|---|---|---|---|---|',
  ...SEEDS.map(ofOneEye),
]

/** An eye 5° off: dismounts by eye alone before and after 20 pairs, beside a true eye. */
function ofOneEye(seed: number): string {
  const bikeType = bikeWith(SCALES['letters 12.7 mm'])
  const off: SimulatedEye = { biasDeg: 5, sdDeg: MEASUREMENT_SD.kneeByEyeDeg }
  const trueEye: SimulatedEye = { ...off, biasDeg: 0 }
  const random = createRng(seed)
  const pairs = Array.from({ length: 20 }, () => {
    const rider = simulated.drawRider(POPULATIONS.own, bikeType, random)
    const at = { seatHeight: recommendedHeight(rider, [simulated.crestAtMark(rider)]), seatSlide: 'D' }
    const { seen } = simulated.kneeByEye(rider, at, off)
    return { seen, read: simulated.goniometer(rider, at).deg, readSd: MEASUREMENT_SD.goniometerDeg }
  })
  const observer = observerFrom(kneeEyeError(pairs), plumbEyeError([]))
  const dismounts = (eye: SimulatedEye, observer?: Observer) => {
    const look: Looks = (rider, at) => [simulated.kneeByEye(rider, at, eye), simulated.plumbLine(rider, at)]
    const ended = ridersOf(POPULATIONS.own, bikeType, seed + 2000).map((rider) =>
      follow(rider, { ...crest(rider), observer: observer }, look),
    )
    return { mounts: mean(ended.map((e) => e.dismounts)), knee: share(ended.flatMap((e) => e.knee ?? [])) }
  }
  const rows = [dismounts(trueEye), dismounts(off), dismounts(off, observer)]
  return (
    `| ${seed} | ${rows.map((r) => `${r.mounts.toFixed(2)} (${percent(r.knee)})`).join(' | ')} | ` +
    `${(rows[2].mounts / rows[0].mounts).toFixed(2)} | ${observer.eye!.kneeBiasDeg.toFixed(1)}° |`
  )
}
