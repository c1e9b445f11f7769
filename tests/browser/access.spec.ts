import AxeBuilder from '@axe-core/playwright'
import { type Page } from '@playwright/test'
import { expect, test } from './support/test'
import { codesOfBikes } from '../../server/bikes/codes'
import { addMember } from '../../server/riders/members/members'
import { PAGE_SIZE } from '../../server/pages/riders/members'
import { database } from '../../server/platform/db/connection'
import { MANAGER, mark, openFloor, settled, setUpAt, sitDown, STATE, step, turnLight, watch } from './support/hall'

/** Rules whose findings are never serious: minor or moderate in axe's own table, so they are not judged here. */
const NOT_JUDGED = [
  ...['accesskeys', 'heading-order', 'image-redundant-alt', 'meta-viewport-large', 'page-has-heading-one', 'region'],
  ...['empty-table-header', 'landmark-banner-is-top-level', 'landmark-complementary-is-top-level', 'landmark-unique'],
  ...['landmark-contentinfo-is-top-level', 'landmark-main-is-top-level', 'landmark-no-duplicate-banner'],
  ...['landmark-no-duplicate-contentinfo', 'landmark-no-duplicate-main', 'landmark-one-main', 'scope-attr-valid'],
  ...['aria-allowed-role', 'empty-heading', 'skip-link', 'tabindex', 'presentation-role-conflict'],
]

const DESK = { width: 1280, height: 800 }
const PHONE = { width: 390, height: 844 }

/** What axe calls serious on the page as shown, of all rules or of one. */
async function seriousFindings(page: Page, rule?: string): Promise<string[]> {
  await settled(page)
  // No frames and no style sheets of other hosts: nothing to look into beside the page.
  const axe = new AxeBuilder({ page }).setLegacyMode().options({ preload: false, resultTypes: ['violations'] })
  const { violations } = await (rule ? axe.withRules(rule) : axe.disableRules(NOT_JUDGED)).analyze()
  const serious = violations.filter((v) => v.impact === 'serious' || v.impact === 'critical')
  return serious.map(
    (v) =>
      `${v.id}: ${v.nodes
        .map((n) => n.target.join(' '))
        .slice(0, 4)
        .join(' | ')}`,
  )
}

/**
 * What is wrong with the page as shown: all rules in the bright light on the phone; in the dim light on the desk only
 * the contrast, since nothing else changes with the light; and how far it is wider than either screen. Leaves the
 * page as it was.
 */
async function faultsOf(page: Page): Promise<string[]> {
  await expect(page).toHaveTitle(/Yielding Saddle/)
  const bright = await seriousFindings(page)
  const beyondPhone = await widerThanScreen(page)
  await page.setViewportSize(DESK)
  await turnLight(page, 'dim')
  const dim = await seriousFindings(page, 'color-contrast')
  const beyondDesk = await widerThanScreen(page)
  await turnLight(page, 'bright')
  await page.setViewportSize(PHONE)
  return [
    ...bright.map((fault) => `bright: ${fault}`),
    ...dim.map((fault) => `dim: ${fault}`),
    ...(beyondPhone > 0 ? [`${beyondPhone} px wider than the phone`] : []),
    ...(beyondDesk > 0 ? [`${beyondDesk} px wider than the desk`] : []),
  ]
}
const noFault = async (page: Page) => expect(await faultsOf(page)).toEqual([])
const widerThanScreen = (page: Page): Promise<number> =>
  page.evaluate(() => Math.max(0, document.documentElement.scrollWidth - innerWidth))

/** The studio's pages, those too of which another test here opens more. */
const PAGES = [
  '/members',
  '/members?page=2',
  '/riders/member-01',
  '/riders/member-24',
  '/set-up/setup-member-01',
  '/class',
  '/class/class-dusk',
  '/class/class-dusk/watch',
  '/class/class-dawn/after',
  '/class/class-dusk/blocks',
  '/class/class-dusk/round',
  '/class/class-dusk/bike/bike-4',
  '/class/cues',
  '/class/exercises',
  '/rooms',
  '/bikes',
  '/bikes/types/meadowsweet',
  '/bikes/types/sorrel',
  '/bikes/types/sorrel/tape',
  '/bikes/bike-9',
  '/bikes/round',
  '/bikes/fits',
  '/riders/member-05/reasons',
  '/riders/member-05/story',
  '/riders/member-01/show',
  '/studio',
  '/studio/picture',
  '/studio/files',
  '/studio/people',
  '/studio/devices',
  '/account',
  '/eye',
]

/** So many that the list needs a second page; added twice they are there once. */
async function moreMembersThanAPage(): Promise<void> {
  for (let i = 0; i <= PAGE_SIZE; i++) {
    const name = `Zoria Landfill ${String(i).padStart(2, '0')}`
    await addMember(database(), MANAGER, { id: `filler-${i}`, name }, new Date())
  }
}
test('sign-in has no serious finding by axe', async ({ page }) => {
  await page.goto('/sign-in')
  await noFault(page)
})

test('a machine’s code has no serious finding by axe, in either light, with a set-up begun and its parts open', async ({
  page,
}) => {
  const code = (await codesOfBikes(database(), MANAGER, ['bike-12'], new Date())).get('bike-12')
  await page.goto(`/b/${code}`)
  await page.getByText('Getting on and off').click()
  await page.getByText('The parts of this bike').click()
  expect(await seriousFindings(page)).toEqual([])
  await page.getByRole('button', { name: 'Never' }).click()
  await page
    .getByRole('group', { name: /tap where it is set/ })
    .getByRole('button')
    .nth(5)
    .click()
  await expect(page.getByRole('heading', { name: 'First too low, to feel it' })).toBeVisible()
  expect(await seriousFindings(page)).toEqual([])
  expect(await widerThanScreen(page)).toBe(0)
  await page.evaluate(() => void (document.documentElement.dataset.light = 'dim'))
  expect(await seriousFindings(page, 'color-contrast')).toEqual([])
})

test.describe('signed in', () => {
  test.use({ storageState: STATE })

  test('members, rider and class have no serious finding by axe', async ({ page }) => {
    await page.goto('/members')
    await noFault(page)
    await page.getByRole('button', { name: 'Add a member' }).click()
    await noFault(page)
    await page.goto('/riders/member-01')
    await noFault(page)
    await page.getByRole('button', { name: 'Move a mark' }).click()
    await page.getByRole('button', { name: /^Seat height .*, move it$/ }).click()
    await expect(page.getByRole('region', { name: 'Move a mark' })).toHaveAttribute('aria-busy', 'false')
    await noFault(page)
    await openFloor(page)
    const free = page.getByRole('button', { name: /^\d+ free$/ }).first()
    await free.click()
    await noFault(page)
    await sitDown(page, 'Pilar Venn')
    await page.getByRole('button', { name: /Pilar Venn/ }).click()
    await noFault(page)
    await watch(page)
    await page
      .getByRole('button', { name: /^\d+.*Pilar Venn/ })
      .first()
      .click()
    await noFault(page)
    await page.getByRole('button', { name: 'Felt', exact: true }).click()
    await noFault(page)
  })

  // One page after the other in one tab, as people walk through them: each a cold browser would take far longer.
  test('no page has a serious finding by axe, is too wide, calls the outside, throws or breaks its policy', async ({
    page,
    baseURL,
  }) => {
    const wrong: unknown[] = []
    const isOwn = (url: string) => [baseURL!, 'data:', 'blob:'].some((start) => url.startsWith(start))
    page.on('request', (request) => isOwn(request.url()) || wrong.push(request.url()))
    page.on('pageerror', (error) => wrong.push(error.message))
    page.on('console', (message) => message.type() === 'error' && wrong.push(message.text()))
    await moreMembersThanAPage()
    for (const path of PAGES) {
      await page.goto(path)
      await expect(page.getByRole('heading', { level: 1 }).first()).toBeVisible()
      wrong.push(...(await faultsOf(page)).map((fault) => `${path}: ${fault}`))
    }
    expect(wrong).toEqual([])
  })

  test(
    'every step of the set-up has no serious finding by axe, and its answers are large ' + 'enough for a thumb',
    async ({ page }) => {
      await page.goto('/riders/member-21')
      await setUpAt(page, 1)
      await noFault(page)
      await step(page, 'Beside').click()
      await mark(page, 'Seat height', '9').click()
      await page.getByRole('button', { name: /^Done, set to/ }).click()
      for (const name of ['Beside', 'Knee', 'Cranks', 'Bars', 'Numbers']) {
        await step(page, name).click()
        await noFault(page)
      }
      await step(page, 'Knee').click()
      for (const button of await page.getByRole('region', { name: 'What to do next' }).getByRole('button').all()) {
        const box = await button.boundingBox()
        expect(Math.min(box!.height, box!.width)).toBeGreaterThanOrEqual(46)
      }
      for (const button of await page
        .getByRole('group', { name: /^Seat height/ })
        .getByRole('button')
        .all()) {
        expect((await button.boundingBox())!.height).toBeGreaterThanOrEqual(48)
      }
    },
  )
})
