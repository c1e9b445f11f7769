/**
 * How long a class takes to plan, places and queue, by its size: `npm run bench:plan` writes the table to docs/.
 * Seeded; sizes within one run.
 */
import { writeFileSync } from 'node:fs'
import { plan } from '../../core/operations/requests/plan'
import { randomRoom } from '../../core/simulated/randomRoom'
import { TYPES } from '../netloftHall'

const SIZES = [5, 10, 20, 40, 80] as const
const ROOMS = 40

const rows = SIZES.map((size) => {
  const rooms = Array.from({ length: ROOMS }, (_, i) => randomRoom(TYPES, 1000 + i, size, size))
  for (const room of rooms.slice(0, 10)) plan(room as never)
  const times = rooms.map((room) => {
    const began = performance.now()
    plan(room as never)
    return performance.now() - began
  })
  const sorted = times.sort((a, b) => a - b)
  return { size, median: sorted[ROOMS / 2], p95: sorted[Math.floor(0.95 * ROOMS)] }
})
const base = rows.find(({ size }) => size === 10)!.median
const text = [
  '# Planning a class',
  '',
  `Made by \`npm run bench:plan\`: ${ROOMS} seeded rooms of each size, as many riders as bikes, the three demo`,
  'types, two pairs of hands; places and queue together, in Node.',
  '',
  '| riders and bikes | median, ms | 95th percentile, ms | against ten |',
  '|---|---|---|---|',
  ...rows.map(
    ({ size, median, p95 }) =>
      `| ${size} | ${median.toFixed(1)} | ${p95.toFixed(1)} | ${(median / base).toFixed(1)} times |`,
  ),
  '',
].join('\n')
writeFileSync(new URL('../../docs/bench/plan.md', import.meta.url), text)
console.log(text)
