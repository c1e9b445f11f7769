/** Bikes farther apart in depth than this are in different rows, metres. */
const ROW_GAP_M = 0.7

type PlacedBike = Readonly<{ id: string; xM: number; yM: number }>
/** A bike within its row: `at` is where its middle lies, 0 left to 1 right. */
export type InRow = Readonly<{ id: string; at: number }>

/**
 * The bikes of a room in rows from the front, each row from left to right; where a row's bikes are closer than the
 * longest row lets them, they are moved apart, so that none covers another on a screen.
 */
export function floorRows(bikes: readonly PlacedBike[], widthM: number): InRow[][] {
  const rows: PlacedBike[][] = []
  for (const bike of [...bikes].sort((a, b) => a.yM - b.yM)) {
    const last = rows[rows.length - 1]
    if (last && bike.yM - last[0].yM <= ROW_GAP_M) last.push(bike)
    else rows.push([bike])
  }
  const longest = rows.reduce((most, row) => Math.max(most, row.length), 1)
  return rows.map((row) => {
    const sorted = [...row].sort((a, b) => a.xM - b.xM)
    return apart(
      sorted.map(({ xM }) => Math.min(1, Math.max(0, xM / widthM))),
      1 / longest,
    ).map((at, i) => ({ id: sorted[i].id, at }))
  })
}

/** Middles in rising order, moved as little as it takes to be `gap` apart and half of that from both ends. */
function apart(middles: readonly number[], gap: number): number[] {
  const placed: number[] = []
  for (const middle of middles) placed.push(Math.max(middle, (placed[placed.length - 1] ?? -gap / 2) + gap))
  let limit = 1 + gap / 2
  for (let i = placed.length - 1; i >= 0; i--) {
    placed[i] = Math.min(placed[i], limit - gap)
    limit = placed[i]
  }
  return placed
}
