import { expect, type Locator, type Page, test } from '@playwright/test'
import { throughOrder } from './order'
import { audit, freeTern, openSheet, proveRaised, signOn, takeTern, verdict, walkAll } from './work'

test.beforeEach(freeTern)

const sizes = [
  { width: 390, height: 844, screens: 2 },
  { width: 800, height: 1280, screens: 1 },
  { width: 1280, height: 800, screens: 1 },
]

/** Whole on the screen, and nothing over it. Asked of the layout: a page that draws no frame does not hold the test up. */
function inView(e: Element): boolean {
  const { left, right, top, bottom } = e.getBoundingClientRect()
  const over = document.elementFromPoint((left + right) / 2, (top + bottom) / 2)
  return left >= 0 && top >= 0 && right <= innerWidth + 1 && bottom <= innerHeight + 1 && over !== null && e.contains(over)
}

/** How high a station is at each size, that its next action is in view, and that nothing runs out sideways. */
async function measured(page: Page, station: string, next: Locator): Promise<void> {
  const heights: string[] = []
  for (const { width, height, screens } of sizes) {
    await page.setViewportSize({ width, height })
    await page.evaluate(() => scrollTo(0, 0))
    if (process.env.GEOLABE_SHOTS) await page.screenshot({ path: `${process.env.GEOLABE_SHOTS}/${station}-${width}.png` })
    const is = await page.evaluate(() => [document.documentElement.scrollWidth, document.documentElement.scrollHeight])
    heights.push(`${width}×${height}: ${is[1]} px`)
    expect(is[0], `${station} at ${width}: width`).toBeLessThanOrEqual(width)
    expect(is[1], `${station} at ${width}: height`).toBeLessThanOrEqual(screens * height)
    await expect.poll(() => next.first().evaluate(inView), `${station} at ${width}: next action`).toBe(true)
    const cut = await page.evaluate(() =>
      [...document.querySelectorAll('main button, main label, main h1, main h2, main [role=tab]')]
        .filter((e) => e.checkVisibility() && e.clientWidth > 0 && e.scrollWidth > e.clientWidth + 1)
        .map((e) => e.textContent),
    )
    expect(cut, `${station} at ${width}: cut off`).toEqual([])
  }
  console.log(`     ${station.padEnd(12)} ${heights.join(', ')}`)
}

test('each station is one screen, and from the site to the recorded lift is under eighty touches', async ({ page }) => {
  let touches = 0
  const touch = async (what: Locator) => {
    touches++
    await what.click()
  }
  const enter = async (field: Locator, figure: string) => {
    await touch(field)
    await field.fill(figure)
  }
  const sheet = (name: string) => touch(page.getByRole('tab', { name, exact: true }))

  await signOn(page, 'Ines Haldane')
  await takeTern(page)
  await page.getByRole('button', { name: 'Isolated and tagged, begin' }).click()
  await measured(page, 'Walk-round', page.getByRole('button', { name: 'In order', exact: true }))
  await walkAll(page)

  await measured(page, 'Site', page.getByRole('button', { name: /Site looked at/ }))
  for (let left = await page.getByRole('button', { name: 'Agree this control' }).count(); left > 0; left--)
    await touch(page.getByRole('button', { name: 'Agree this control' }).first())
  await touch(page.getByRole('button', { name: /Site looked at/ }))

  await expect(page.getByRole('heading', { name: 'Set up Tern' })).toBeVisible()
  for (const name of ['Stand', 'Outriggers', 'Level', 'In order', 'Loads']) {
    await openSheet(page, name)
    await measured(page, `Set up, ${name}`, page.getByRole('button', { name: 'Record this set-up' }))
  }
  await sheet('Level')
  await enter(page.getByLabel('Along, front high is plus'), '0.1')
  await enter(page.getByLabel('Across, left high is plus'), '0')
  await sheet('In order')
  await throughOrder(page, touch)
  await touch(page.getByRole('button', { name: 'Record this set-up' }))
  await proveRaised(page)

  await expect(page.getByRole('heading', { name: 'Prove the lift' })).toBeVisible()
  await expect(verdict(page)).toContainText('Not proven')
  for (const name of ['Load', 'Path', 'Slings', 'Boom, wind', 'Reading']) {
    await openSheet(page, name)
    await measured(page, `Prove, ${name}`, page.getByRole('button', { name: 'Record as it is' }))
  }
  await sheet('Path')
  await touch(page.getByRole('radio', { name: /Measured/ }))
  await sheet('Boom, wind')
  await enter(page.getByLabel('Wind, gust at the boom tip'), '4')
  await expect(verdict(page)).toContainText('Inside the limits checked')
  // A finding opens where it stands, and its outrigger is ringed on the drawing; an outrigger opens its finding.
  await page.getByRole('button', { name: /^front right leg/ }).click()
  await expect(page.getByRole('region', { name: 'What was checked' }).getByRole('button', { expanded: true })).toHaveCount(1)
  await audit(page)
  await touch(page.getByRole('button', { name: 'Record this proof, on to the lift' }))

  await expect(page.getByRole('heading', { name: 'Lift: Pump skid' })).toBeVisible()
  await measured(page, 'Lift', page.getByRole('button', { name: 'Lifted and landed' }))
  await throughOrder(page, touch)
  await touch(page.getByRole('button', { name: 'Lifted and landed' }))
  await expect(page.getByText('No lift is waiting.')).toBeVisible()
  console.log(`     from the site to the recorded lift: ${touches} touches`)
  expect(touches).toBeLessThan(80)
  await page.getByRole('link', { name: 'Stow & hand over' }).last().click()
  await expect(page.getByRole('heading', { name: 'Stow & hand over' })).toBeVisible()
  await measured(page, 'Stow', page.getByRole('button', { name: 'Walk round once more' }))
})
