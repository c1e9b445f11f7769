import { spawnSync } from 'node:child_process'
import { join } from 'node:path'

/** Runs module code in a plain Node; resolves with its lines. */
function runModule(code: string): string[] {
  const { stdout, stderr } = spawnSync(process.execPath, ['--input-type=module', '-e', code], {
    cwd: join(__dirname, '../..'),
    encoding: 'utf8',
    env: { ...process.env, NODE_OPTIONS: '' },
  })
  if (!stdout) throw new Error(stderr)
  return stdout.trimEnd().split('\n')
}

test('an address is known by its pattern alone: no number, name, query or secret stays', () => {
  const cases = {
    '/': '/',
    '/today?from=ada': '/today',
    '/riders/member-12/reasons': '/riders/:id/reasons',
    '/class/0b9d2c1e-aa4f-4a55-9a9e-3f0c9d1b2a77/watch': '/class/:id/watch',
    '/m/abcdefgh': '/m/:id',
    '/invited/wordlike/more': '/invited/:id/more',
    '/api/files/studio.json': '/api/files/studio.json',
    '/members/Ada%20Lovelace': '/members/:id',
    '/_next/static/chunks/1zyok.js': '/_next',
    '/a/b/c/d/e/f/g/h': '/a/b/c/d/e/f/…',
  }
  const [answer] = runModule(
    `import { routeOf } from './scripts/support/requestLog.mjs';` +
      `console.log(JSON.stringify(${JSON.stringify(Object.keys(cases))}.map(routeOf)))`,
  )
  expect(JSON.parse(answer)).toEqual(Object.values(cases))
})

test('what failed or was slow is logged with its id and pattern; figures need the key', () => {
  const lines = runModule(`
    import { EventEmitter } from 'node:events'
    import { requestLog } from './scripts/support/requestLog.mjs'
    const watched = requestLog({ key: 'open-up' })
    const answer = (statusCode, type) => {
      const head = {}
      const response = Object.assign(new EventEmitter(), { statusCode, head, getHeader: () => type })
      response.setHeader = (key, value) => (head[key] = value)
      response.writeHead = (status) => Object.assign(response, { status })
      response.end = (text = '') => Object.assign(response, { text })
      return response
    }
    const ask = (url, headers = {}) => ({ url, method: 'GET', headers })
    for (const status of [200, 404, 503]) {
      const [request, response] = [ask('/riders/member-7?name=Ada'), answer(status)]
      watched.observe(request, response)
      response.emit('close')
      if (request.headers['x-request-id'] !== response.head['x-request-id']) throw new Error('two ids')
    }
    for (const authorization of [undefined, 'Bearer wrong', 'Bearer open-up']) {
      const response = answer(0)
      await watched.metrics(ask('/metrics', { authorization }), response)
      console.log(response.status, /route="\\/riders\\/:id",status="503"\\} 1/.test(response.text))
    }
    const many = requestLog({ key: 'open-up' })
    const letters = [...'abcdefghijklmnopqrstuvwxyz']
    for (const a of letters) for (const b of letters) {
      const response = answer(404)
      many.observe(ask('/' + a + b), response)
      response.emit('close')
    }
    const all = answer(0)
    await many.metrics(ask('/metrics', { authorization: 'Bearer open-up' }), all)
    console.log(all.text.match(/_count\\{/g).length)
    const none = answer(0)
    await requestLog().metrics(ask('/metrics'), none)
    console.log(none.status)
  `)
  // The log is written beside the answers: a busy machine may print it after them.
  const [logged] = lines.filter((line) => line.startsWith('{'))
  const answers = lines.filter((line) => line !== logged)
  const { id, time, ...rest } = JSON.parse(logged) as Record<string, unknown>
  expect(rest).toMatchObject({ level: 50, method: 'GET', route: '/riders/:id', status: 503, msg: 'failed' })
  expect([typeof id, new Date(String(time)).getFullYear() > 2000]).toEqual(['string', true])
  // Made-up addresses do not fill the memory: those after the first two hundred are one.
  expect(answers).toEqual(['401 false', '401 false', '200 true', '201', '404'])
})
