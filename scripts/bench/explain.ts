/**
 * How long `explain` takes, by how much is on file: `npm run bench:explain` writes the table to docs/. Seeded by the
 * written cases; sizes within one run.
 */
import { writeFileSync } from 'node:fs'
import type { ExplainRequest } from '../../core/comfort/model/request'
import { explain } from '../../core/operations/requests/explain'
import { COMPLAINT_CASES } from '../../core/testing/complaintCases'
import { SIGNS } from '../../core/classes/watch/signs'

const ROUNDS = 40
const CASES = COMPLAINT_CASES.map(({ request }) => request)

/** A case with so many notes of classes besides, and so many complaints. */
function loaded(request: ExplainRequest, notes: number, complaints: number): ExplainRequest {
  const seen = Array.from({ length: notes }, (_, i) => {
    const { sign, region, sided } = SIGNS[(7 * i) % SIGNS.length]
    return { kind: 'seen', region, what: sign, ...(sided && { side: 'left' as const }), daysAgo: i } as const
  })
  const others = CASES.map((one) => one.complaints[0]).filter(({ what }) => what !== request.complaints[0].what)
  return {
    ...request,
    complaints: [request.complaints[0], ...others.slice(0, complaints - 1)],
    findings: [...request.findings, ...seen],
  }
}

const rows = [
  { name: 'the written cases as they are', notes: 0, complaints: 1 },
  { name: 'with 20 notes', notes: 20, complaints: 1 },
  { name: 'with 20 notes, two complaints', notes: 20, complaints: 2 },
  { name: 'with 100 notes, three complaints', notes: 100, complaints: 3 },
].map(({ name, notes, complaints }) => {
  const requests = CASES.map((request) => loaded(request, notes, complaints))
  for (const request of requests) explain(request)
  const times: number[] = []
  for (let round = 0; round < ROUNDS; round++)
    for (const request of requests) {
      const began = performance.now()
      explain(request)
      times.push(performance.now() - began)
    }
  times.sort((a, b) => a - b)
  return { name, median: times[times.length >> 1], p95: times[Math.floor(0.95 * times.length)] }
})
const text = [
  '# Explaining complaints',
  '',
  `Made by \`npm run bench:explain\`: the ${CASES.length} written cases, ${ROUNDS} times each, in Node.`,
  '',
  '| asked | median, ms | 95th percentile, ms | against the first |',
  '|---|---|---|---|',
  ...rows.map(
    ({ name, median, p95 }) =>
      `| ${name} | ${median.toFixed(2)} | ${p95.toFixed(2)} | ${(median / rows[0].median).toFixed(1)} times |`,
  ),
  '',
].join('\n')
writeFileSync(new URL('../../docs/bench/explain.md', import.meta.url), text)
console.log(text)
