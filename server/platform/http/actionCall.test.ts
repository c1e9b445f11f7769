/** @jest-environment node */
import { isReadableCall } from './actionCall'

const call = (
  body: BodyInit,
  type = 'text/plain;charset=UTF-8',
  headers: Record<string, string> = { 'next-action': 'x' },
) =>
  isReadableCall(
    new Request('http://127.0.0.1/members', { method: 'POST', body, headers: { 'content-type': type, ...headers } }),
  )

test('a call whose body cannot be read is distinguished from one that can', async () => {
  for (const body of ['[]', '["a",1,null,{"b":["$undefined","$D2026-11-30T00:00:00.000Z","$$x","$NaN"]}]'])
    expect([body, await call(body)]).toEqual([body, true])
  for (const body of [
    '[',
    '',
    'x',
    '{}',
    '"a"',
    '["$Q1"]',
    '["$F1"]',
    '[{"a":"$@7"}]',
    `${'['.repeat(80)}${']'.repeat(80)}`,
  ])
    expect([body, await call(body)]).toEqual([body, false])
})

test('forms are read as forms, and what is no call is left alone', async () => {
  const form = new FormData()
  form.set('0', '[]')
  const sent = new Request('http://127.0.0.1/', { method: 'POST', body: form, headers: { 'next-action': 'x' } })
  expect(await isReadableCall(sent)).toBe(true)
  // Its body is still there for whoever answers.
  expect((await sent.formData()).get('0')).toBe('[]')
  expect(await call('--x', 'multipart/form-data; boundary=y')).toBe(false)
  expect(await call('[', 'application/json', {})).toBe(true)
})
