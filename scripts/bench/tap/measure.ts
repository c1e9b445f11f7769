import type { Evidence } from '../../../core/riders/evidence/registry'
import { recommend } from '../../../core/operations/requests/recommend'
import type { RecommendRequest } from '../../../core/setups/recommend/request/request'
import { HOLES_BIKE as bikeType } from '../../../core/testing/meanRider'

const at = (seatHeight: string) => ({ seatHeight, seatSlide: 'D', barHeight: '6', barSlide: '0' })
/** Nine rows of a set-up under way, all with full marks; the tenth is the tap that is measured. */
const NINE_ROWS: readonly Evidence[] = [
  { kind: 'rider', experience: 'regular', soleMm: 12, at: at('8') },
  { kind: 'landmarkAtMark', landmark: 'hipCrest', at: at('9') },
  { kind: 'kneeByEye', seen: 'deepBend', at: at('8') },
  { kind: 'heelCheck', seen: 'stillBent', at: at('8') },
  { kind: 'kneeAngle', deg: 38, by: 'goniometer', at: at('8') },
  { kind: 'plumb', mm: 12, at: at('8') },
  { kind: 'kneeAngle', deg: 31, by: 'goniometer', at: at('9') },
  { kind: 'elbows', seen: 'soft', at: at('9') },
  { kind: 'trunkAngle', deg: 58, at: at('9') },
]
const earlier = (agoDays: number, deg: number) => ({
  bikeType,
  agoDays,
  evidence: [
    { kind: 'stature', mm: 1720 },
    { kind: 'kneeAngle', deg, by: 'goniometer', at: at('9') },
    { kind: 'plumb', mm: 6, at: at('9') },
  ] satisfies Evidence[],
})
const HISTORY = [earlier(30, 30), earlier(200, 32), earlier(400, 29)]

const request = (evidence: readonly Evidence[]): RecommendRequest => ({
  bikeType,
  evidence: [...evidence],
  history: HISTORY,
  samples: 4000,
  seed: 1,
})

/**
 * Milliseconds of so many taps: the tenth row of a set-up, another plumb line each time, requested as the page does,
 * after the nine before. The first few warm the machine up and are not counted.
 */
export function measureTaps(taps: number): number[] {
  const WARM_UP = 8
  for (let rows = 1; rows <= NINE_ROWS.length; rows++) recommend(request(NINE_ROWS.slice(0, rows)))
  const times = Array.from({ length: taps + WARM_UP }, (_, i) => {
    const row: Evidence = { kind: 'plumb', mm: -14 + (i * 28) / taps, at: at('9') }
    const began = performance.now()
    recommend(request([...NINE_ROWS, row]))
    return performance.now() - began
  })
  return times.slice(WARM_UP)
}
