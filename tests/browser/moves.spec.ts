import { expect, test } from './test'
import { randomUUID } from 'node:crypto'
import { database } from '../../server/platform/db/connection'
import { addMember } from '../../server/riders/members/members'
import { appendEvidence, finishSetup } from '../../server/setups/evidence'
import { startSetup } from '../../server/setups/setups'
import { floor, MANAGER, newDevice, seat, STATE, unique, watch, watched } from './hall'

test.use({ storageState: STATE, serviceWorkers: 'allow', warm: false })

/** Somebody of this test alone, set up on a bike of the first type. */
async function riderOn(bikeId: string, name: string): Promise<void> {
  const [memberId, setupId, db] = [randomUUID(), randomUUID(), database()]
  const marks = { seatHeight: '8', seatSlide: 'B', barHeight: '5', barSlide: '1' }
  await addMember(db, MANAGER, { id: memberId, name }, new Date())
  await startSetup(db, MANAGER, { id: setupId, memberId, bikeId }, new Date())
  const row = { kind: 'kneeAngle', deg: 33, by: 'goniometer', at: marks } as const
  await appendEvidence(db, MANAGER, setupId, { id: randomUUID(), row }, new Date())
  await finishSetup(db, MANAGER, setupId, { id: randomUUID(), marks }, new Date())
}

test('the later of two devices that move one axis shows the present mark and its author; undo is one tap', async ({
  page,
  browser,
}) => {
  const name = unique('Tova Twice')
  await riderOn('bike-1', name)
  await seat(page, 1, name)
  await watch(page)
  const other = await newDevice(browser)
  const second = await other.newPage()
  await second.goto(page.url())
  await other.setOffline(true)
  const moved = async (on: typeof page, way: string) => {
    await watched(on, 1).click()
    await on.getByRole('button', { name: /^Bar height/ }).click()
    await on.getByRole('group', { name: way }).getByRole('button', { name: 'Comfort' }).click()
  }
  await moved(second, 'Bar height down')
  await moved(page, 'Bar height up')
  await expect(page.getByRole('button', { name: /on this device/ })).toBeHidden()
  await other.setOffline(false)
  const told = second.getByRole('complementary', { name: 'Notes' }).getByRole('alert')
  await expect(told).toContainText(/Not moved: Ines Harrow set this to \S+ at \d\d:\d\d/)
  await second.getByRole('button', { name: 'Got it' }).click()
  await expect(told).toBeHidden()
  await expect(watched(second, 1, 'bar height')).toBeVisible()
  await page.getByRole('button', { name: 'Undo', exact: true }).click()
  await expect(watched(page, 1, 'bar height')).toHaveCount(0)
  await expect(watched(second, 1, 'bar height')).toHaveCount(0)
  await expect(floor(page)).toBeVisible()
  await other.close()
})
