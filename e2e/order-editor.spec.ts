import { expect } from '@playwright/test'
import { look } from './day'
import { audit, fits, signOn, test } from './work'

test('an order is written anew with what is wrong beside it, and counts once the person in charge has put it in force', async ({
  openPage,
}) => {
  const [page, other] = [await openPage(), await openPage()]
  const open = async (p: typeof page) => {
    await p.goto('/machines/dipper')
    await p.getByRole('tab', { name: 'Order of work' }).click()
  }
  await signOn(page, 'Mirela Quist')
  await open(page)
  await expect(page.getByText('The machine’s own, as it came with its definition.')).toBeVisible()
  await page.getByRole('button', { name: 'Write it anew' }).click()
  await expect(page.getByText('Nothing is changed yet.')).toBeVisible()

  // A need is taken out that kept something from dropping: told with the way that it comes to it.
  await page.getByLabel('Order', { exact: true }).selectOption({ label: 'Lift' })
  await page.getByRole('button', { name: /Slings off$/ }).click()
  const out = page.getByRole('button', { name: /^Take this need out/ })
  while ((await out.count()) > 0) await out.first().click()
  const found = page.getByRole('list', { name: 'What was found' })
  await expect(found).toBeVisible()
  await expect(found.getByText('Something could drop').first()).toBeVisible()
  await expect(page.getByRole('list', { name: 'What changes' }).getByText('Taken out:').first()).toBeVisible()
  await page.getByLabel('Why it changes').fill('The drill of last week')
  await expect(page.getByRole('button', { name: 'Send it to the person in charge' })).toBeDisabled()
  await look(page, 'order-editor-found')
  await audit(page)
  await fits(page)

  // What was typed outlives a reload; thrown away, it is gone.
  await page.reload()
  await page.getByRole('tab', { name: 'Order of work' }).click()
  await expect(found).toBeVisible()
  await page.getByRole('button', { name: 'Throw these changes away' }).click()
  await page.getByRole('button', { name: 'Write it anew' }).click()
  await page.getByLabel('What goes wrong otherwise').fill('Chain twisted under load: it jams, and the load hangs.')
  await expect(page.getByText(/^Nothing found/)).toBeVisible()

  // The step as it is written: what it no longer says is gone, and back it comes.
  await page.getByText(/^The step as the file says it/).click()
  const one = page.getByLabel('As JSON')
  const { caution, ...without } = JSON.parse(await one.inputValue())
  await one.fill(JSON.stringify(without))
  await expect(page.getByLabel('What goes wrong otherwise')).toHaveValue('')
  await expect(page.getByText('Nothing is changed yet.')).toBeVisible()
  await one.fill(JSON.stringify({ ...without, hold: { least_s: -1 } }))
  await expect(page.getByText(/^hold\.least_s:/)).toBeVisible()
  await one.fill(JSON.stringify({ ...without, caution }))
  await expect(page.getByLabel('What goes wrong otherwise')).toHaveValue(caution)
  await expect(page.getByText(/^Nothing found/)).toBeVisible()

  // A rule put in: what it lacks is said where it is, and the steps that break it are told; taken out, all is as it was.
  await page.getByRole('radio', { name: 'Rules, states, stops' }).click()
  await page.getByRole('button', { name: 'A rule', exact: true }).click()
  const why = page.getByLabel('Why it must never be')
  await why.fill('')
  await expect(page.getByText('Does not read yet.')).toBeVisible()
  await why.fill('A load left hung comes down on somebody.')
  const never = page.getByRole('region', { name: 'What must never be' })
  await never.getByLabel('What', { exact: true }).selectOption({ label: 'Load' })
  await never.getByLabel('As it is said').selectOption({ label: 'hanging' })
  await expect(found.getByText('Breaks a rule').first()).toBeVisible()
  await expect(found.getByText(/A load left hung comes down on somebody/).first()).toBeVisible()
  await never.getByRole('button', { name: 'Another besides' }).click()
  await never.getByLabel('Of these').selectOption({ label: 'one is enough' })
  await look(page, 'order-editor-rule')
  await audit(page)
  await fits(page)
  await never.getByRole('button', { name: 'Take out condition 2' }).click()
  await page.getByRole('button', { name: 'Take this rule out' }).click()
  await expect(page.getByText(/^Nothing found/)).toBeVisible()
  for (const list of ['States', 'Stops', 'Overrides', 'Orders'])
    await page.getByLabel('Which', { exact: true }).selectOption({ label: list })
  await expect(page.getByLabel('The order', { exact: true })).not.toHaveValue('')

  // As the file says it: what is no JSON stays as it is typed, and is said.
  await page.getByRole('radio', { name: 'As the file says it' }).click()
  const json = page.getByLabel('The whole order')
  const whole = await json.inputValue()
  expect(whole).toContain('Chain twisted under load')
  await json.press('Control+End')
  await json.press('Backspace')
  await expect(page.getByText(/^This is no JSON yet/)).toBeVisible()
  await json.pressSequentially('}\n')
  await expect(page.getByText(/^Nothing found/)).toBeVisible()
  await expect(json).toHaveValue(`${whole}\n`)
  const take = (text: string) =>
    page
      .getByLabel('Take a JSON file')
      .setInputFiles({ name: 'order.json', mimeType: 'application/json', buffer: Buffer.from(text) })
  await take(whole.replace('"machine": "dipper"', '"machine": "tern"'))
  await expect(page.getByText('This is the order of “tern”, not of Dipper.')).toBeVisible()
  // Pasted over all of it, long as it is, at once.
  await json.press('Control+A')
  await json.evaluate((el, text) => {
    const clipboardData = new DataTransfer()
    clipboardData.setData('text', text)
    el.dispatchEvent(new ClipboardEvent('paste', { clipboardData, bubbles: true, cancelable: true }))
  }, whole)
  await expect(json).toHaveValue(whole)
  await expect(page.getByText(/^Nothing found/)).toBeVisible()
  await look(page, 'order-editor-json')
  await page.getByLabel('Why it changes').fill('The drill of last week')
  await page.getByRole('button', { name: 'Send it to the person in charge' }).click()
  await expect(page.getByRole('heading', { name: 'Waits for the person in charge' })).toBeVisible()
  await expect(page.getByRole('button', { name: 'Read it all: put it in force' })).toHaveCount(0)

  await signOn(other, 'Wilhelmina Osei')
  await open(other)
  const changes = other.getByRole('list', { name: 'What changes' })
  await expect(changes.getByText('Reads otherwise:')).toBeVisible()
  await expect(changes.getByText(/Chain twisted under load/)).toBeVisible()
  await look(other, 'order-waits')
  await audit(other)
  await fits(other)
  await other.getByRole('button', { name: 'Read it all: put it in force' }).click()
  await expect(other.getByText(/^Revision 1, written by Mirela Quist, put in force by Wilhelmina Osei/)).toBeVisible()
})
