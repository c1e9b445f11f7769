/** @jest-environment node */
import { compute } from './pool'
import { staleWhileRevalidate } from './staleWhileRevalidate'

jest.mock('./pool', () => ({ compute: jest.fn() }))
const computed = jest.mocked(compute)
const settled = () => new Promise((resolve) => setImmediate(resolve))

test('nobody waits: the answer before serves until the next is worked out, and a failure is due again', async () => {
  const ask = staleWhileRevalidate<{ n: number }>('learn')
  computed.mockResolvedValue({ n: 1 })
  const request = jest.fn(async () => ({}))
  expect(ask('hall', 'first', request)).toBeNull()
  await settled()
  expect(ask('hall', 'first', request)).toEqual({ n: 1 })
  expect(request).toHaveBeenCalledTimes(1)
  // Another studio has its own.
  expect(ask('other hall', 'first', request)).toBeNull()

  computed.mockResolvedValue({ n: 2 })
  expect(ask('hall', 'second', request)).toEqual({ n: 1 })
  await settled()
  expect(ask('hall', 'second', request)).toEqual({ n: 2 })

  // The database gone, or too much to do: nothing is thrown at the page.
  const gone = async () => Promise.reject(new Error('gone'))
  expect(ask('hall', 'third', gone)).toEqual({ n: 2 })
  await settled()
  expect(ask('hall', 'third', request)).toBeNull()
  await settled()
  expect(ask('hall', 'third', request)).toEqual({ n: 2 })
})

test('where nothing older serves, nothing does until the next is there; a late one of before is left out', async () => {
  const ask = staleWhileRevalidate<{ n: number }>('machineResiduals', { olderServes: false })
  const request = async () => ({})
  computed.mockResolvedValue({ n: 1 })
  ask('hall', 'first', request)
  await settled()
  expect(ask('hall', 'first', request)).toEqual({ n: 1 })
  let endOld: (answer: { n: number }) => void = () => undefined
  computed.mockReturnValueOnce(new Promise((resolve) => (endOld = resolve)))
  expect(ask('hall', 'second', request)).toBeNull()
  computed.mockResolvedValue({ n: 3 })
  expect(ask('hall', 'third', request)).toBeNull()
  await settled()
  endOld({ n: 2 })
  await settled()
  expect(ask('hall', 'third', request)).toEqual({ n: 3 })
})
