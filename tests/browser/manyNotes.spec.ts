import type { Page } from '@playwright/test'
import { createConnection } from 'mysql2/promise'
import { REGION_NAME, SIGNS } from '../../core/classes/watch/signs'
import { isKept, STATE, tile } from './support/hall'
import { expect, test } from './support/test'

test.use({ storageState: STATE, serviceWorkers: 'allow', warm: false })

/** `npm run trial:outbox` taps many more, against a server that is killed as well. */
const NOTES = 64
const KILLS = 4

/** A seeded draw, so that every run kills the same tabs at the same taps. */
function draws(seed: number): (below: number) => number {
  let state = seed
  return (below) => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0
    return Math.floor((state / 4294967296) * below)
  }
}

/** Bike, region, sign: the page has nothing else to wait for than its own drawing. */
const tapNote = (page: Page, bike: number, region: string, sign: string) =>
  page.evaluate(
    async ([number, part, seen]) => {
      const press = async (element: Element | null | undefined) => {
        if (!element) throw new Error(`nothing to press for ${number} ${part} ${seen}`)
        ;(element as HTMLElement).click()
        await new Promise((drawn) => setTimeout(drawn))
      }
      const tiles = [...document.querySelectorAll('[aria-label="The floor"] button')]
      const tile = tiles.find((one) => one.querySelector('b')?.textContent === number)
      if (tile?.getAttribute('aria-pressed') !== 'true') await press(tile)
      const regions = [...document.querySelectorAll('[aria-label="Region"] button')]
      await press(regions.find((one) => one.textContent === part))
      await press(document.querySelector(`button[aria-label="${seen}"]`))
    },
    [String(bike), region, sign] as const,
  )

/** Rider and sign as the page names them; empty for what is no note. */
function noteIn(entry: { op: string; memberId?: string; sign?: string; side?: string }): string {
  const sign = SIGNS.find((one) => one.sign === entry.sign)
  if (entry.op !== 'addNote' || !sign) return ''
  return `${entry.memberId} ${sign.name}${sign.sided ? `, ${entry.side}` : ''}`
}

test('64 notes written without network in four tabs, four of them killed, arrive once each and in order', async ({
  context,
}) => {
  const CLASS = 'class-long'
  const bikes = [1, 2, 3, 4, 5, 6, 7, 8]
  const connection = await createConnection({ uri: process.env.DATABASE_URL })
  await connection.query(`DELETE FROM bike_assignment WHERE class_id = '${CLASS}'`)
  await connection.query(
    'INSERT INTO bike_assignment (studio_id, class_id, bike_id, member_id, created_at, created_by) VALUES ' +
      bikes
        .map((bike) => `('netloft-hall', '${CLASS}', 'bike-${bike}', 'member-0${bike}', NOW(3), 'ines-harrow')`)
        .join(),
  )
  await connection.end()
  const wanted = SIGNS.flatMap(({ region, name, sided }) =>
    (sided ? (['left', 'both', 'right'] as const) : [null]).map((side) => ({
      region: REGION_NAME[region],
      sign: side ? `${name}, ${side}` : name,
    })),
  )
  const open = async () => {
    const page = await context.newPage()
    await page.goto(`/class/${CLASS}/watch`)
    await expect(tile(page, 8)).toBeVisible()
    return page
  }
  const tabs = [await open(), await open(), await open(), await open()]
  await expect.poll(() => isKept(tabs[3])).toBe(true)
  await tabs[3].reload()
  await context.setOffline(true)

  // What the server took, in the order it took it.
  const taken: string[] = []
  context.on('response', (response) => {
    if (response.url().endsWith('/api/outbox') && response.ok()) taken.push(noteIn(response.request().postDataJSON()))
  })
  const tapped: string[] = []
  const draw = draws(11)
  const kills = new Set<number>()
  while (kills.size < KILLS) kills.add(draw(NOTES))
  for (let n = 0; n < NOTES; n++) {
    const t = n % 4
    const k = Math.floor(n / 4)
    const { region, sign } = wanted[k % wanted.length]
    const bike = bikes[2 * t + Math.floor(k / wanted.length)]
    await tapNote(tabs[t], bike, region, sign)
    tapped.push(`member-0${bike} ${sign}`)
    if (!kills.has(n)) continue
    await tabs[t].close()
    tabs[t] = await open()
  }
  await context.setOffline(false)
  const kept = async () => {
    const answer = await tabs[0].request.get(`/api/classes/${CLASS}/watch`)
    return ((await answer.json()) as { notes: { id: string }[] }).notes.map(({ id }) => id)
  }
  await expect.poll(async () => (await kept()).length, { timeout: 240_000 }).toBe(NOTES)
  expect(new Set(await kept()).size).toBe(NOTES)
  // A tab's own taps keep their order; two tabs, tapped within the same moment, may change places with each other.
  const notes = taken.filter((said) => said !== '')
  for (const t of [0, 1, 2, 3]) {
    const ofTab = (said: string) => [2 * t + 1, 2 * t + 2].includes(Number(said.slice(8, 9)))
    expect(notes.filter(ofTab)).toEqual(tapped.filter(ofTab))
  }
})
