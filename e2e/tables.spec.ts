import { readFileSync } from 'node:fs'
import { expect } from '@playwright/test'
import { audit, fits, freeTern, signOn, test } from './work'

test.beforeEach(freeTern)

test('a table is drawn, a slipped figure is flagged as it is typed, entered by one and checked by another', async ({
  page,
  openPage,
}) => {
  await signOn(page, 'Mirela Quist')
  await page.getByRole('link', { name: 'Tables' }).click()
  await expect(page.getByRole('heading', { name: 'Tables' })).toBeVisible()
  await expect(page.locator('main li')).toHaveCount(19)
  await audit(page)
  await fits(page)
  await page.getByLabel('Find a table').fill('lattice')
  await page.getByRole('link', { name: /Kittiwake/ }).click()
  await expect(page.getByRole('img', { name: /Ratings by radius/ })).toBeVisible()
  await expect(page.getByText('Nothing stands out in any configuration.')).toBeVisible()
  await audit(page)
  await fits(page)

  await page.getByRole('button', { name: 'Revise' }).click()
  const cell = page.getByLabel('Radius 24.0, Boom 48.0, kg')
  await cell.fill('476000')
  await cell.press('Tab')
  await expect(page.getByText(/a slipped decimal point\?/)).toBeVisible()
  await cell.fill('47000')
  await cell.press('Tab')
  await expect(page.getByText(/a slipped decimal point\?/)).toHaveCount(0)
  await expect(page.getByText('Nothing stands out in any configuration.')).toBeVisible()
  // Without a word of why it is not entered, and the field is gone to.
  await page.getByRole('button', { name: 'Enter revision 2' }).click()
  await expect(page.getByText('Say what was changed and from which document.')).toBeVisible()
  await expect(page.getByLabel('What changed, from which document')).toBeFocused()
  await page.getByLabel('What changed, from which document').fill('Book part 2, sheet 7 read again')
  await page.getByRole('button', { name: 'Enter revision 2' }).click()
  await expect(page.getByText('Lifts are proved with revision 1 until then.')).toBeVisible()
  await expect(page.getByText('47,600 kg → 47,000 kg')).toBeVisible()
  // Who entered it does not check it.
  await expect(page.getByRole('button', { name: 'Checked against the document' })).toHaveCount(0)

  const other = await openPage()
  await signOn(other, 'Wilhelmina Osei')
  await other.goto('/tables/kittiwake-main')
  await other.getByRole('button', { name: 'Checked against the document' }).click()
  await expect(other.getByText('Checked by Wilhelmina Osei · counts now')).toBeVisible()
})

test('a table goes out as CSV and comes back from a spreadsheet, its faults named by line and column', async ({ page }) => {
  await signOn(page, 'Mirela Quist')
  await page.goto('/tables/puffin-main')
  const going = page.waitForEvent('download')
  await page.getByRole('button', { name: 'CSV', exact: true }).click()
  const csv = readFileSync((await (await going).path()) ?? '', 'utf8')
  expect(csv).toContain('configuration,liftHeight_m,0.5,0.6,0.7')
  const take = (text: string) =>
    page.getByLabel('Take from a file').setInputFiles({ name: 'puffin.csv', mimeType: 'text/csv', buffer: Buffer.from(text) })
  await take(csv.replace('2350', 'about 2350'))
  await expect(page.getByRole('alert')).toContainText('Line 2, column “0.6”')
  await take(csv.replace(',2350', ',2300'))
  await expect(page.getByText(/2,350 kg → 2,300 kg/)).toBeVisible()
  const json = readFileSync(new URL('../demo/tables/puffin-main.json', import.meta.url), 'utf8')
  const whole = (text: string) =>
    page
      .getByLabel('Take from a file')
      .setInputFiles({ name: 'puffin.json', mimeType: 'application/json', buffer: Buffer.from(text) })
  await whole(json.replace('"liftHeight_m"', '"liftHeight"'))
  await expect(page.getByRole('alert')).toBeVisible()
  await whole(json.replaceAll('2150', '2140'))
  await expect(page.getByText(/2,150 kg → 2,140 kg/).first()).toBeVisible()
  await page.getByRole('button', { name: 'Leave it as it was' }).click()
  await expect(page.getByText(/2,350 kg → 2,300 kg/)).toHaveCount(0)
})

test('an operator reads tables and does not revise them', async ({ page }) => {
  await signOn(page, 'Ines Haldane')
  await page.goto('/tables/dipper-main')
  await expect(page.getByRole('heading', { name: 'Dipper, marks on the parts' })).toBeVisible()
  await expect(page.getByRole('button', { name: 'Revise' })).toHaveCount(0)
  await expect(page.getByText('Take from a file')).toHaveCount(0)
})
