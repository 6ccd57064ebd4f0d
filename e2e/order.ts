import { expect, type Locator, type Page } from '@playwright/test'

/** How a step is touched: by a click, or as a test counts its touches. */
export type Touch = (what: Locator) => Promise<void>
const click: Touch = (what) => what.click()

/** Second people of the demo: badge and PIN. */
export interface Second {
  badge: string
  pin: string
}

async function doStep(here: Locator, touch: Touch, second: Second | undefined): Promise<void> {
  const begin = here.getByRole('button', { name: /^I begin to hold it|^Watch \d/ })
  if (await begin.isVisible()) {
    await touch(begin)
    const end = here.getByRole('button', { name: /^Let go: done|^It did not move/ })
    await expect(end).toBeEnabled({ timeout: 70_000 })
    await touch(end)
    return
  }
  for (const asked of await here.locator('[data-usual]').all()) {
    await asked.getByRole('textbox').fill((await asked.getAttribute('data-usual')) ?? '')
  }
  // The next step does not take the second tap of a finger.
  await expect(here.getByRole('checkbox').first()).toBeEnabled()
  await touch(
    here
      .locator('label')
      .filter({ has: here.page().getByRole('checkbox') })
      .first(),
  )
  const seen = here.getByRole('button', { name: 'Seen, confirmed' })
  if (second && (await seen.isVisible())) {
    await here.getByLabel('Badge').fill(second.badge)
    await here.getByLabel('PIN').fill(second.pin)
    await touch(seen)
  }
}

/**
 * The order of work that is on the screen, as it is offered, until nothing of it is left. Returns how many steps that were, and in how many
 * tellings: what is told in one is several.
 *
 * @param touch omitted: a click
 * @param until left as soon as that is there
 */
export async function throughOrder(
  page: Page,
  touch: Touch = click,
  second?: Second,
  until?: Locator,
): Promise<{ acts: number; told: number }> {
  const here = page.locator('li[aria-current="step"]:visible')
  const looked = page.getByRole('button', { name: 'I looked: it stands like this' })
  // The station may still be on its way to the screen.
  await here
    .first()
    .or(looked.first())
    .first()
    .waitFor({ timeout: 10_000 })
    .catch(() => {})
  for (let [acts, told] = [0, 0]; told < 120; told++) {
    if (await looked.first().isVisible()) {
      await touch(looked.first())
      await expect(looked).toHaveCount(0)
    }
    if ((await here.count()) === 0 || (await until?.isVisible())) return { acts, told }
    const id = await here.first().getAttribute('id')
    acts += Number(await here.first().getAttribute('data-acts'))
    await doStep(page.locator(`li[id="${id}"]`), touch, second)
    const now = async () => ((await here.count()) === 0 ? '' : here.first().getAttribute('id'))
    await expect.poll(now, { timeout: 15_000 }).not.toBe(id)
  }
  throw new Error('the order does not end')
}
