import { randomUUID } from 'node:crypto'
import { assignBike } from '../../server/classes/assignments'
import { addClass } from '../../server/classes/classes'
import { addComplaint } from '../../server/comfort/complaints'
import { database } from '../../server/platform/db/connection'
import { recordPlan } from '../../server/riders/plans'
import { MANAGER, riderOn, seat, STATE, tile, unique, watch, watched } from './support/hall'
import { expect, test } from './support/test'

test.use({ storageState: STATE, warm: false })

const DAY_MS = 86_400_000

test('a starter comes due after its rides: said on the tile, raised with one tap, gone from the list after', async ({
  page,
}) => {
  const [name, db] = [unique('Benno Starter'), database()]
  const memberId = await riderOn('bike-8', name)
  const ago = (days: number) => new Date(Date.now() - days * DAY_MS)
  const plan = { kind: 'starter', lineId: 'sorrel', to: '9', afterRides: 2 } as const
  await recordPlan(db, MANAGER, { id: randomUUID(), memberId, plan }, ago(9))
  for (const days of [6, 3]) {
    const classId = randomUUID()
    await addClass(
      db,
      MANAGER,
      { id: classId, title: 'Rides', startsAt: ago(days), endsAt: ago(days), roomId: null },
      ago(9),
    )
    await assignBike(db, MANAGER, { id: randomUUID(), classId, bikeId: 'bike-8', memberId }, ago(days))
  }
  const due = 'Starter: raise the seat 8 → 9, one mark'
  await seat(page, 8, name)
  await expect(tile(page, 8)).toHaveAccessibleName(/watch: raise the seat 8 → 9/)
  await page.getByRole('link', { name: 'After' }).click()
  const planned = page.getByRole('region', { name: 'Planned, and due' }).getByRole('listitem').filter({ hasText: name })
  await expect(planned).toContainText(due)

  await watch(page)
  await watched(page, 8, 'raise the seat 8 → 9').click()
  const starter = page.getByRole('group', { name: 'Starter' })
  await expect(starter).toContainText('rider off the bike')
  const raise = starter.getByRole('button', { name: 'Raise' })
  await raise.click()
  await expect(watched(page, 8, 'seat height 8 → 9')).toBeVisible()
  await expect(starter).toHaveCount(0)
  // Taken back it is due again; raised for good it is done.
  await page.getByRole('button', { name: 'Undo', exact: true }).click()
  await expect(starter).toContainText(due)
  const kept = page.waitForResponse('**/api/outbox')
  await raise.click()
  expect((await kept).ok()).toBe(true)
  await page.getByRole('link', { name: 'After' }).click()
  await expect(
    page.getByRole('listitem').filter({ hasText: name }).filter({ hasText: 'seat height 8 → 9' }),
  ).toBeVisible()
  await expect(planned).toHaveCount(0)
  await page.goto(`/riders/${memberId}`)
  await expect(page.getByRole('region', { name: 'Numbers' }).locator('dd').first()).toHaveText('9')
  await expect(page.getByRole('region', { name: 'Time line' })).toContainText('moved as planned')
  await expect(page.getByRole('region', { name: 'Plans' })).not.toContainText('Starter')
})

test('a heart condition refers first: rider, set-up, floor, moves and reasons; a clinician’s word ends it', async ({
  page,
}) => {
  const [name, db] = [unique('Corin Heart'), database()]
  const memberId = await riderOn('bike-9', name)
  const bother = { what: 'frontKnee', strength: 4 } as const
  await addComplaint(db, MANAGER, { id: randomUUID(), memberId, ...bother }, new Date())
  await page.goto(`/riders/${memberId}`)
  const record = async (clearedBy?: string) => {
    await page.getByRole('button', { name: 'Add a limit' }).click()
    const dialog = page.getByRole('dialog')
    await dialog.getByRole('button', { name: 'Heart condition' }).click()
    if (clearedBy) await dialog.getByLabel('Cleared by').fill(clearedBy)
    const save = dialog.getByRole('button', { name: 'Save' })
    // Nothing is stored before the rider agrees.
    await expect(save).toBeDisabled()
    await dialog.getByRole('checkbox').click()
    await save.click()
    await expect(dialog).toBeHidden()
  }
  await record()
  const why = 'Heart condition: their clinician’s word first'
  const stop = page.getByRole('alert', { name: 'Stop' })
  await expect(stop).toContainText(why)
  await stop.getByRole('link', { name: 'Open the limits' }).click()
  await expect(page.getByRole('region', { name: 'Limits' })).toContainText('Heart condition')

  await page.getByRole('link', { name: 'Reasons' }).click()
  await page.waitForURL('**/reasons')
  await expect(page.getByRole('region', { name: 'Refer' })).toContainText('No change of the bike: a heart condition')

  await seat(page, 9, name)
  await expect(tile(page, 9)).toHaveAccessibleName(new RegExp(`stop: ${why}`))
  await tile(page, 9).click()
  await expect(page.getByText(`${why}. Refer first`).first()).toBeVisible()
  await watch(page)
  await watched(page, 9, `stop: ${why}`).click()
  await expect(stop).toContainText(why)
  // Even the mildest move is asked about.
  await page.getByRole('button', { name: /^Bar height/ }).click()
  await page.getByRole('group', { name: 'Bar height up' }).getByRole('button', { name: 'Comfort' }).click()
  await expect(page.getByRole('group', { name: 'Move it all the same?' })).toBeVisible()

  await page.goto(`/riders/${memberId}`)
  await page.getByRole('button', { name: 'New set-up' }).click()
  await page
    .getByRole('dialog')
    .getByRole('button', { name: /^9(?!\d)/ })
    .click()
  await page.waitForURL('**/set-up/**')
  await expect(stop).toContainText(why)
  await page.goto(`/riders/${memberId}`)
  await record('Dr Amble')
  await expect(page.getByRole('region', { name: 'Limits' })).toContainText('cleared by Dr Amble')
  await expect(stop).toHaveCount(0)
})
