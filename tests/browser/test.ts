import { expect, test as base, type BrowserContext, type Page } from '@playwright/test'

/** A page opened answers to hands before the test goes on: on a busy machine it is seen long before it does. */
function patient(page: Page): void {
  const goto = page.goto.bind(page)
  page.goto = async (url, options) => {
    const response = await goto(url, options)
    await answersToHands(page)
    return response
  }
  const reload = page.reload.bind(page)
  page.reload = async (options) => {
    const response = await reload(options)
    await answersToHands(page)
    return response
  }
}

const answersToHands = (page: Page) => expect(page.locator('html')).toHaveAttribute('data-ready', 'true')

/** Makes every page of a context patient, those opened later too. */
export function patientContext(context: BrowserContext): BrowserContext {
  context.pages().forEach(patient)
  context.on('page', patient)
  return context
}

export const test = base.extend({
  context: async ({ context }, provide) => provide(patientContext(context)),
})
export { expect }
