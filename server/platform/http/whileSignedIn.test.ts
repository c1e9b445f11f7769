/** @jest-environment node */
import { announceSessionsEnded } from '../accounts/sessionsEnded'
import { whileSignedIn } from './whileSignedIn'

beforeEach(() => void jest.useFakeTimers())
afterEach(() => void jest.useRealTimers())

const gone = new AbortController()
const request = () => new Request('http://127.0.0.1/', { headers: { cookie: 'x' }, signal: gone.signal })

test('a stream ends soon after its session, and not for a fault in asking', async () => {
  const answers: (boolean | Error)[] = [true, new Error('database'), false]
  const asked: (string | null)[] = []
  const signal = whileSignedIn(request(), async (headers) => {
    asked.push(headers.get('cookie'))
    const answer = answers.shift()!
    if (answer instanceof Error) throw answer
    return answer
  })
  await jest.advanceTimersByTimeAsync(61_000)
  expect(signal.aborted).toBe(false)
  await jest.advanceTimersByTimeAsync(30_000)
  expect(signal.aborted).toBe(true)
  await jest.advanceTimersByTimeAsync(300_000)
  expect(asked).toEqual(['x', 'x', 'x'])
})

test('a stream ends within a second of an ended session, also where the transaction commits late', async () => {
  let isOpen = true
  const signal = whileSignedIn(new Request('http://127.0.0.1/'), async () => isOpen)
  announceSessionsEnded()
  await jest.advanceTimersByTimeAsync(400)
  expect(signal.aborted).toBe(false)
  isOpen = false
  await jest.advanceTimersByTimeAsync(600)
  expect(signal.aborted).toBe(true)
})

test('stops asking the database when the client goes away', async () => {
  let asked = 0
  const signal = whileSignedIn(request(), async () => (asked += 1) > 0)
  gone.abort()
  expect(signal.aborted).toBe(true)
  await jest.advanceTimersByTimeAsync(300_000)
  expect(asked).toBe(0)
})
