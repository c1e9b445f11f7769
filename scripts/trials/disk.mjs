/**
 * `npm run trial:disk`: a full disk, on a small tmpfs that the trial mounts (root on Linux).
 *
 * 1. A first start without space must end with one sentence, not with a stack trace.
 * 2. The trial fills the disk under a running studio: the server must reject notes with the reason and serve pages, and
 *    server and start command must survive, also with 0 bytes left.
 * 3. After the trial frees space the server must store notes again, and no stored note may be missing.
 */
import { execFileSync } from 'node:child_process'
import { appendFileSync, existsSync, mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { setTimeout as wait } from 'node:timers/promises'
import { freeBytes, MIN_FREE } from '../support/freeSpace.mjs'
import { build } from '../support/production.mjs'
import { hallIn, root } from './hall.mjs'

const SIZE_MB = 700
const mount = mkdtempSync(join(tmpdir(), 'ys-disk-'))
execFileSync('mount', ['-t', 'tmpfs', '-o', `size=${SIZE_MB}m`, 'tmpfs', mount])
const folder = join(mount, 'studio')
const filler = join(mount, 'filler')
const hall = await hallIn(folder)

/** Fills the disk until `left` bytes remain. */
function fill(left) {
  if (!existsSync(filler)) writeFileSync(filler, '')
  const piece = Buffer.alloc(1_000_000)
  try {
    while (freeBytes(mount) > left + piece.length) appendFileSync(filler, piece)
    while (left === 0) appendFileSync(filler, Buffer.alloc(4096))
  } catch (error) {
    if (error.code !== 'ENOSPC') throw error
  }
}
const makeRoom = () => rmSync(filler, { force: true })
const expect = (isTrue, what) => {
  if (!isTrue) throw new Error(`${what}\n${hall.output()}`)
}

let cookie
const taken = []
async function note() {
  const id = crypto.randomUUID()
  const at = { memberId: 'member-01', bikeId: 'bike-1', classId: 'class-dusk', side: 'left', sign: 'kneesOut' }
  const body = { ...at, id, op: 'addNote', author: 'ines-harrow', madeAtMs: Date.now() }
  const response = await fetch(`${hall.base}/api/outbox`, {
    method: 'POST',
    headers: { cookie, 'content-type': 'application/json', origin: hall.base },
    body: JSON.stringify(body),
  })
  if (response.status === 200) taken.push(id)
  return { status: response.status, text: await response.text() }
}
const read = async (path) => (await fetch(`${hall.base}${path}`, { headers: { cookie }, redirect: 'manual' })).status

try {
  await build(root, process.env.NEXT_DIST ?? '.next')
  mkdirSync(folder)
  fill(2_000_000)
  hall.start()
  const code = await hall.over()
  expect(code === 1, 'a first start without room did not end')
  expect(/disk is full/i.test(hall.output()), 'a first start without room does not say so')
  expect(!/\n\s+at /.test(hall.output()), 'a first start without room ends in a stack trace')
  const lastLine = hall.output().trim().split('\n').at(-1)

  makeRoom()
  hall.start()
  await hall.open()
  cookie = await hall.signIn()
  for (let i = 0; i < 20; i++) expect((await note()).status === 200, 'a note was not taken')

  fill(MIN_FREE / 2)
  await wait(2000)
  const refused = await note()
  expect(refused.status === 507 && /disk/.test(refused.text), `a full disk answers ${refused.status} ${refused.text}`)
  expect((await read('/members')) === 200, 'a page is not read on a full disk')
  expect((await read('/class/class-dusk/watch')) === 200, 'the floor is not read on a full disk')

  fill(0)
  // These requests also write to the log.
  for (let i = 0; i < 50; i++) await read('/members')
  expect((await note()).status === 507, 'a note was not refused with nothing left')
  expect((await read('/members')) === 200, 'a page is not read with nothing left')
  expect(hall.isRunning(), 'the start command ended')

  makeRoom()
  await wait(2000)
  for (let i = 0; i < 20; i++) expect((await note()).status === 200, 'a note was not taken once there was room')
  const state = await (await fetch(`${hall.base}/api/classes/class-dusk/watch`, { headers: { cookie } })).json()
  const there = new Set(state.notes.map(({ id }) => id))
  expect(
    taken.every((id) => there.has(id)),
    'a note was lost',
  )
  console.log(
    `A first start without room wrote: ${lastLine}\n` +
      'Running, with the disk full: notes refused with the reason, pages read; with not one byte left the same, and ' +
      `server and start command lived. With room again notes were taken; of ${taken.length} taken none was lost.`,
  )
} catch (error) {
  console.error(error)
  process.exitCode = 1
} finally {
  await hall.stopped('SIGTERM')
  execFileSync('umount', ['-l', mount])
  rmSync(mount, { recursive: true, force: true })
}
