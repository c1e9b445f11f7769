/**
 * The core from the command line. One JSON request on stdin, one answer on stdout:
 *
 *   npm run --silent fit -- place < request.json
 *   npm run --silent fit -- recommend --lines < requests.ndjson
 *
 * A faulty request answers with its faults and exits 2; with --lines the run goes on and exits 0. A bug exits 1.
 */
import { createInterface } from 'node:readline'
import { text } from 'node:stream/consumers'
import { errorResponse } from '../core/operations/errorResponse'
import { isErrorResponse } from '../core/operations/errorResponse'
import { dispatch } from '../core/operations/dispatch'

const args = process.argv.slice(2)
const lines = args.includes('--lines')
const operation = args.find((a) => !a.startsWith('--')) ?? ''

function answer(json: string): object {
  let request: unknown
  try {
    request = JSON.parse(json)
  } catch (error) {
    return errorResponse('badJson', [{ pointer: '', reason: `this is not JSON: ${(error as Error).message}` }])
  }
  return dispatch(operation, request)
}

if (lines) {
  for await (const line of createInterface({ input: process.stdin, crlfDelay: Infinity })) {
    if (line.trim() !== '') process.stdout.write(JSON.stringify(answer(line)) + '\n')
  }
} else {
  const response = answer(await text(process.stdin))
  process.stdout.write(JSON.stringify(response) + '\n')
  process.exitCode = isErrorResponse(response) ? 2 : 0
}
