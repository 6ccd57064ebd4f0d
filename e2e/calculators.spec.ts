import { expect } from '@playwright/test'
import { appOnDevice, audit, fits, freeTern, goOn, signOn, takeTern, tern, test } from './work'

test.beforeEach(freeTern)

test('every sum opens with its example, its drawing, its formula and its cautions', async ({ page }) => {
  const errors: string[] = []
  page.on('pageerror', (e) => errors.push(`${page.url()}: ${e.message}`))
  await page.goto('/calculators')
  await expect(page.getByRole('heading', { name: 'Calculators' })).toBeVisible()
  const links = await page.locator('main a').evaluateAll((all) => all.map((a) => a.getAttribute('href') ?? ''))
  const { calculators } = await (await page.request.get('/api/calc')).json()
  expect(links.map((l) => l.replace('/calculators/', '')).sort()).toEqual(calculators.map((c: { name: string }) => c.name).sort())
  for (const [i, link] of links.entries()) {
    await goOn(page, link)
    await expect(page.getByRole('region', { name: 'Answer' })).toBeVisible()
    // A picture, or a group of points that are dragged.
    await expect(page.locator('main svg[aria-label]').first()).toBeVisible()
    await expect(page.getByRole('heading', { name: 'How', exact: true })).toBeVisible()
    await expect(page.getByRole('heading', { name: 'Caution', exact: true })).toBeVisible()
    // The same figures by the wire as on the screen come from the same function; here the wire answers the same example.
    const c = calculators.find((x: { name: string }) => `/calculators/${x.name}` === link)
    const answered = await page.request.post(`/api/calc/${c.name}`, { data: c.example })
    expect(answered.status(), c.name).toBe(200)
    if (i % 6 === 0) await fits(page)
  }
  expect(errors).toEqual([])
})

test('a sum is found by /, computes at every figure, keeps what cannot be read, and goes by link to somebody else', async ({
  page,
  openPage,
}) => {
  await page.goto('/calculators')
  await expect(page.getByRole('heading', { name: 'Calculators' })).toBeVisible()
  // The key is heard once the screen has settled; a person presses it again where nothing happened.
  await expect(async () => {
    await page.keyboard.press('/')
    await expect(page.getByRole('searchbox')).toBeFocused({ timeout: 700 })
  }).toPass({ timeout: 10_000 })
  await page.keyboard.type('outrigger spreader')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('heading', { name: 'Mat under a leg' })).toBeVisible()
  const answer = page.getByRole('region', { name: 'Answer' })
  await expect(answer).toContainText('156 kPa')
  await audit(page)
  await page.getByLabel('Carries', { exact: true }).fill('105')
  await page.getByLabel('Carries ±').fill('')
  await expect(answer).not.toContainText('156 kPa')
  await expect(answer).not.toContainText('…')
  const said = await answer.innerText()
  await page.getByLabel('Thickness', { exact: true }).fill('0')
  await expect(page.getByRole('alert')).toContainText('Must be more than zero.')
  await expect(page.getByRole('alert')).toContainText('mat.thickness_m')
  await page.getByLabel('Thickness', { exact: true }).fill('0,12')
  await expect(page.getByRole('alert')).toHaveCount(0)
  await expect(answer).toHaveText(said.replaceAll('\n', ''), { useInnerText: false })

  await page.context().grantPermissions(['clipboard-read', 'clipboard-write'])
  await page.getByRole('button', { name: 'Link' }).click()
  await expect(page.getByRole('status').filter({ hasText: 'copied' })).toBeVisible()
  const link = await page.evaluate(() => navigator.clipboard.readText())
  const other = await openPage()
  await other.goto(link)
  await expect(other.getByLabel('Carries', { exact: true })).toHaveValue('105')
  await expect(other.getByRole('region', { name: 'Answer' })).toHaveText(said.replaceAll('\n', ''), { useInnerText: false })
})

test('sums work with the network gone', async ({ page, context }) => {
  await page.goto('/calculators')
  await expect(page.getByRole('heading', { name: 'Calculators' })).toBeVisible()
  // The app keeps itself on the device; once it has, it opens without a network.
  await appOnDevice(page)
  await page.reload()
  await expect(page.getByRole('heading', { name: 'Calculators' })).toBeVisible()
  await context.setOffline(true)
  await page.goto('/calculators/swing')
  await expect(page.getByRole('heading', { name: 'Swing of a load' })).toBeVisible()
  await page.getByLabel('Rope to the load’s centre', { exact: true }).fill('24')
  await expect(page.getByRole('region', { name: 'Answer' })).toContainText('9.8 s')
  await context.setOffline(false)
})

test('a load built from shapes is kept, reused, and goes into the proof of the shift', async ({ page }) => {
  await signOn(page, 'Ines Haldane')
  await takeTern(page)
  await page.getByRole('link', { name: 'Calculators' }).click()
  await page.getByRole('link', { name: /^Load builder/ }).click()
  const answer = page.getByRole('region', { name: 'Answer' })
  await expect(answer).toContainText('1,862 kg')
  await page.getByRole('button', { name: 'Take off parts 1' }).click()
  await expect(answer).not.toContainText('1,862 kg')
  const mass = /([\d,]+) kg/.exec(await answer.innerText())?.[1] ?? ''
  await page.getByLabel('Name of this load').fill('pump and motor')
  await page.getByRole('button', { name: 'Keep' }).click()
  await page.getByRole('button', { name: 'Back to the example' }).click()
  await expect(answer).toContainText('1,862 kg')
  await page.getByRole('button', { name: 'pump and motor', exact: true }).click()
  await expect(answer).toContainText(`${mass} kg`)
  await audit(page)
  await fits(page)
  await page.getByRole('button', { name: 'Note in Tern’s shift' }).click()
  await expect(page.getByRole('status').filter({ hasText: 'Noted in the record' })).toBeVisible()
  await page.getByRole('button', { name: 'Use in this lift' }).click()
  await expect(page).toHaveURL(/\/prove$/)
})

test('feet are told by the marked stops of a machine of the yard', async ({ page }) => {
  await signOn(page, 'Ines Haldane')
  await page.goto('/calculators/tipping-load')
  const stops = page.getByRole('group', { name: 'By marked stops' })
  await stops.getByLabel('Machine').selectOption({ label: 'Tern' })
  await stops.getByRole('button', { name: 'Take these stops' }).click()
  const apart = () => page.getByLabel('Outriggers apart, across').inputValue().then(Number)
  await expect.poll(apart).toBeCloseTo(6, 2)
  for (const o of tern.outriggers ?? []) await stops.getByLabel(o.label).selectOption({ index: 0 })
  await expect.poll(apart).toBeCloseTo(2.4, 2)
})
