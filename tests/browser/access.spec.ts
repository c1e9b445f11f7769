import AxeBuilder from '@axe-core/playwright'
import { type Page } from '@playwright/test'
import { expect, test } from './test'
import { addMember } from '../../server/riders/members/members'
import { PAGE_SIZE } from '../../server/pages/riders/members'
import { database } from '../../server/platform/db/connection'
import { MANAGER, mark, openFloor, settled, setUpAt, sitDown, STATE, step, watch } from './hall'

/** Rules whose findings are never serious: minor or moderate in axe's own table, so they are not judged here. */
const NOT_JUDGED = [
  ...['accesskeys', 'heading-order', 'image-redundant-alt', 'meta-viewport-large', 'page-has-heading-one', 'region'],
  ...['empty-table-header', 'landmark-banner-is-top-level', 'landmark-complementary-is-top-level', 'landmark-unique'],
  ...['landmark-contentinfo-is-top-level', 'landmark-main-is-top-level', 'landmark-no-duplicate-banner'],
  ...['landmark-no-duplicate-contentinfo', 'landmark-no-duplicate-main', 'landmark-one-main', 'scope-attr-valid'],
  ...['aria-allowed-role', 'empty-heading', 'skip-link', 'tabindex', 'presentation-role-conflict'],
]

/** All rules in the bright light; in the dim one only the contrast, since nothing else changes with the light. */
async function seriousFindings(page: Page, light: Light): Promise<string[]> {
  await expect(page).toHaveTitle(/Yielding Saddle/)
  await settled(page)
  // No frames and no style sheets of other hosts: nothing to look into beside the page.
  const axe = new AxeBuilder({ page }).setLegacyMode().options({ preload: false, resultTypes: ['violations'] })
  const { violations } = await (
    light === 'dim' ? axe.withRules('color-contrast') : axe.disableRules(NOT_JUDGED)
  ).analyze()
  const serious = violations.filter((v) => v.impact === 'serious' || v.impact === 'critical')
  return serious.map(
    (v) =>
      `${v.id}: ${v.nodes
        .map((n) => n.target.join(' '))
        .slice(0, 4)
        .join(' | ')}`,
  )
}
const widerThanScreen = (page: Page): Promise<number> =>
  page.evaluate(() => Math.max(0, document.documentElement.scrollWidth - innerWidth))

const LIGHTS = ['bright', 'dim'] as const
type Light = (typeof LIGHTS)[number]

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
  '/studio',
  '/studio/picture',
  '/studio/files',
  '/eye',
]

/** So many that the list needs a second page; added twice they are there once. */
async function moreMembersThanAPage(): Promise<void> {
  for (let i = 0; i <= PAGE_SIZE; i++) {
    const name = `Zoria Landfill ${String(i).padStart(2, '0')}`
    await addMember(database(), MANAGER, { id: `filler-${i}`, name }, new Date())
  }
}
/** Colours change with the light, places with the size: `playwright.config.ts` looks through each light in one size. */
for (const light of LIGHTS) {
  test.describe(light, () => {
    const noSeriousFinding = async (page: Page) => expect(await seriousFindings(page, light)).toEqual([])
    test.beforeEach(async ({ context, baseURL }) => {
      await context.addCookies([{ name: 'light', value: light, url: baseURL! }])
    })

    test('sign-in has no serious finding by axe', async ({ page }) => {
      await page.goto('/sign-in')
      await expect(page.locator('html')).toHaveAttribute('data-light', light)
      await noSeriousFinding(page)
    })

    test.describe('signed in', () => {
      test.use({ storageState: STATE })

      test('members, rider and class have no serious finding by axe', async ({ page }) => {
        await page.goto('/members')
        await noSeriousFinding(page)
        expect(await widerThanScreen(page)).toBe(0)
        await page.getByRole('button', { name: 'Add a member' }).click()
        await noSeriousFinding(page)
        await page.goto('/riders/member-01')
        await noSeriousFinding(page)
        expect(await widerThanScreen(page)).toBe(0)
        await openFloor(page)
        const free = page.getByRole('button', { name: /^\d+ free$/ }).first()
        await free.click()
        await noSeriousFinding(page)
        await sitDown(page, 'Pilar Venn')
        await page.getByRole('button', { name: /Pilar Venn/ }).click()
        await noSeriousFinding(page)
        await watch(page)
        await page
          .getByRole('button', { name: /^\d+.*Pilar Venn/ })
          .first()
          .click()
        await noSeriousFinding(page)
        await page.getByRole('button', { name: 'Felt', exact: true }).click()
        await noSeriousFinding(page)
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
          const [serious, beyondPx] = [await seriousFindings(page, light), await widerThanScreen(page)]
          if (serious.length > 0 || beyondPx > 0) wrong.push({ path, serious, beyondPx })
        }
        expect(wrong).toEqual([])
      })

      test(
        'every step of the set-up has no serious finding by axe, and its answers are large ' + 'enough for a thumb',
        async ({ page }) => {
          await page.goto(`/riders/member-${light === 'dim' ? 21 : 22}`)
          await setUpAt(page, 1)
          await noSeriousFinding(page)
          await step(page, 'Beside').click()
          await mark(page, 'Seat height', '9').click()
          await page.getByRole('button', { name: /^Done, set to/ }).click()
          for (const name of ['Beside', 'Knee', 'Cranks', 'Bars', 'Numbers']) {
            await step(page, name).click()
            await noSeriousFinding(page)
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
  })
}
