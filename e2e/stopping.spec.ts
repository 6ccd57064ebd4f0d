import { expect, type Page } from '@playwright/test'
import { audit, fits, freeTern, signOn, takeTern, test } from './work'

test.beforeEach(freeTern)

test('a sign-on is refused to whose licence ran out, with what would put it right', async ({ page }) => {
  await signOn(page, 'Callum Petrosyan')
  await page.getByRole('link', { name: 'Sign on to Tern' }).click()
  await expect(page.getByText('You may not operate Tern today.')).toBeVisible()
  await expect(page.getByText(/The licence “Mobile crane” ran out on \d{4}-\d{2}-\d{2}/)).toBeVisible()
  await expect(page.getByText(/Renew it and show the new card/)).toBeVisible()
  await expect(page.getByRole('button', { name: /Take Tern/ })).toHaveCount(0)
  await audit(page)
  await fits(page)
})

test('a wrong PIN tells nothing, and too many make one wait', async ({ page }) => {
  await page.goto('/')
  for (let i = 0; i < 6; i++) {
    await page.getByLabel('Badge').fill('4002')
    await page.getByLabel('PIN').fill('0000')
    await page.getByRole('button', { name: 'Sign on', exact: true }).click()
    await expect(page.getByRole('alert')).toContainText(
      i < 5 ? 'Yard, badge and PIN do not belong together.' : /Too many wrong tries. Wait \d+ seconds/,
    )
  }
})

test('a machine is stopped, seen by all, repaired by one and returned by another', async ({ openPage }) => {
  const [ines, tomas, wil, rafiq] = [await openPage(), await openPage(), await openPage(), await openPage()]
  await signOn(ines, 'Ines Haldane')
  await signOn(tomas, 'Tomas Brekke')
  await signOn(wil, 'Wilhelmina Osei')
  await signOn(rafiq, 'Rafiq Dunmore')
  const card = (page: Page) =>
    page.getByRole('listitem').filter({ has: page.getByRole('heading', { name: 'Tern', exact: true }) })
  await expect(card(tomas).getByText('Ready')).toBeVisible()

  await takeTern(ines)
  await ines.getByRole('button', { name: 'Isolated and tagged, begin' }).click()
  await ines.keyboard.press('d')
  await ines.getByLabel('What is wrong').fill('Leans to the rear left, tyre down')
  await ines.getByLabel(/Danger to people/).check()
  await ines
    .getByLabel('Add a photo')
    .setInputFiles({ name: 'p.jpg', mimeType: 'image/jpeg', buffer: Buffer.from('not a picture') })
  await audit(ines)
  await ines.getByRole('button', { name: 'Enter it and stop the machine' }).click()
  // The picture cannot be read: said so, and what was typed is still there.
  await expect(ines.getByText(/not a picture that can be read/)).toBeVisible()
  await expect(ines.getByLabel('What is wrong')).toHaveValue('Leans to the rear left, tyre down')
  const png = Buffer.from(
    'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNkYPhfDwAChwGA60e6kgAAAABJRU5ErkJggg==',
    'base64',
  )
  await ines.getByLabel('p.jpg').setInputFiles({ name: 'q.png', mimeType: 'image/png', buffer: png })
  await ines.getByRole('button', { name: 'Enter it and stop the machine' }).click()

  // Seen by somebody else's open browser within two seconds of being taken into the records.
  await expect(ines.getByText('Tern is stopped.')).toBeVisible()
  await expect(card(tomas).getByText('Stopped', { exact: true })).toBeVisible({ timeout: 2000 })
  await expect(ines.getByText('Tern is stopped.')).toBeVisible()
  await tomas.getByRole('link', { name: 'Look at Tern' }).click()
  await expect(tomas.getByText('Tern is stopped.')).toBeVisible()
  await expect(tomas.getByRole('button', { name: /Take Tern/ })).toHaveCount(0)

  await card(wil).getByRole('link', { name: 'See the defect' }).click()
  await expect(wil.getByRole('img', { name: /Leans to the rear left/ })).toBeVisible()
  await expect(wil.getByRole('button', { name: /Return Tern/ })).toHaveCount(0)
  await expect(wil.getByRole('button', { name: 'Record the repair' })).toHaveCount(0)
  await audit(wil)
  await fits(wil)
  await wil.getByRole('button', { name: 'I have seen this' }).click()
  await expect(wil.getByRole('heading', { name: 'Acknowledged' })).toBeVisible()

  await rafiq.getByRole('link', { name: 'Defects', exact: true }).click()
  await audit(rafiq)
  await fits(rafiq)
  await rafiq.getByRole('link', { name: /Leans to the rear left/ }).click()
  await rafiq.getByLabel('What was done').fill('Tyre changed, nuts torqued')
  await rafiq.getByLabel('Parts').fill('one tyre')
  await rafiq.getByLabel('Hours of work').fill('2')
  await audit(rafiq)
  await rafiq.getByRole('button', { name: 'Record the repair' }).click()
  await expect(rafiq.getByText(/You recorded this repair; somebody else looks at it/)).toBeVisible()
  await expect(rafiq.getByRole('button', { name: 'It is in order' })).toHaveCount(0)

  await expect(wil.getByText('Tyre changed, nuts torqued')).toBeVisible()
  await expect(wil.getByRole('button', { name: 'Return Tern to service' })).toHaveCount(0)
  // An operator does not judge a repair; the person in charge does.
  await tomas.goto(wil.url())
  await expect(tomas.getByRole('heading', { name: 'Repair recorded' })).toBeVisible()
  await expect(tomas.getByRole('button', { name: 'It is in order' })).toHaveCount(0)
  await wil.getByLabel('What you tried, what you saw').fill('Pressure 790, nuts even')
  await audit(wil)
  await wil.getByRole('button', { name: 'It is in order' }).click()
  await expect(wil.getByRole('heading', { name: 'Repair looked at' })).toBeVisible()
  const tag = await wil.request.get((await wil.getByRole('link', { name: 'Stop tag' }).getAttribute('href')) ?? '')
  expect((await tag.body()).subarray(0, 5).toString()).toBe('%PDF-')
  await wil.getByLabel('What you looked at').fill('Pressure 790, stands level')
  await wil.getByRole('button', { name: 'Return Tern to service' }).click()
  await expect(wil.getByRole('heading', { name: 'Returned to service' })).toBeVisible()
  await expect(ines.getByText('Tern is stopped.')).toHaveCount(0)
})

test('of two who take a machine one gets it and the other is told who has it', async ({ openPage }) => {
  const [ines, tomas] = [await openPage(), await openPage()]
  await signOn(ines, 'Ines Haldane')
  await signOn(tomas, 'Tomas Brekke')
  await tomas.getByRole('link', { name: 'Sign on to Tern' }).click()
  await expect(tomas.getByRole('heading', { name: 'Sign on to Tern' })).toBeVisible()
  await takeTern(ines)
  await expect(tomas.getByText('Ines Haldane has this machine')).toBeVisible()
  await ines.getByRole('link', { name: 'Yard' }).first().click()
  await expect(ines.getByRole('link', { name: 'Go on with your shift' })).toBeVisible()
})

test('the other organisation works on its own machines and sees nothing of this one', async ({ page }) => {
  await page.goto('/')
  await page.getByRole('button', { name: /Aud Lindqvane/ }).click()
  await page.getByRole('button', { name: 'Sign on', exact: true }).click()
  await expect(page.getByText('Ferrow Moss Nurseries')).toBeVisible()
  await expect(page.getByRole('heading', { name: 'Sedge' })).toBeVisible()
  await expect(page.getByRole('heading', { name: 'Rush' })).toBeVisible()
  await expect(page.getByRole('heading', { name: 'Tern', exact: true })).toHaveCount(0)
  await audit(page)
  await fits(page)
  await page.goto('/take/tern')
  await expect(page.getByRole('alert')).toContainText('does not exist here')
  await page.getByRole('link', { name: 'Records' }).click()
  await expect(page.getByRole('listitem').filter({ hasText: 'Haldane' })).toHaveCount(0)
  await page.getByRole('link', { name: 'Defects', exact: true }).click()
  await expect(page.getByText('No defect is open.')).toBeVisible()
})
